// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <algorithm>
#include <random>

#include "core/shape/shape.h"

namespace chispa {

/// A grid with a short last strip and holes, perhaps.
inline GridShape randomGrid(std::mt19937& random) {
  const auto n = [&random](int low, int high) { return std::uniform_int_distribution(low, high)(random); };
  const auto x = [&random](double low, double high) {
    return std::uniform_real_distribution(low, high)(random);
  };
  GridShape grid{n(1, 40),
                 n(1, 40),
                 x(0.01, 0.1),
                 x(0.01, 0.1),
                 static_cast<Corner>(n(0, 3)),
                 static_cast<GridRuns>(n(0, 1)),
                 n(0, 1) == 1};
  grid.missing = n(0, (grid.runs == GridRuns::AlongRows ? grid.columns : grid.rows) - 1);
  for (int holes = n(0, std::min(5, (grid.columns * grid.rows - grid.missing - 1) / 2)); holes > 0; --holes)
    grid.holes.push_back({n(0, grid.rows - 1), n(0, grid.columns - 1)});
  std::sort(grid.holes.begin(), grid.holes.end());
  grid.holes.erase(std::unique(grid.holes.begin(), grid.holes.end()), grid.holes.end());
  return grid;
}

/// A random shape of each kind in turn.
inline Shape randomShape(int kind, std::mt19937& random) {
  const auto n = [&random](int low, int high) { return std::uniform_int_distribution(low, high)(random); };
  const auto x = [&random](double low, double high) {
    return std::uniform_real_distribution(low, high)(random);
  };
  const auto way = [&] { return static_cast<StringWay>(n(0, 2)); };
  std::vector<Vec3> points;
  for (int i = n(2, 9); i > 0; --i) points.push_back({x(-3, 3), x(-3, 3), x(0, 3)});
  switch (kind) {
    case 0:
      return LineShape{n(1, 500), x(0.001, 1)};
    case 1:
      return randomGrid(random);
    case 2:
      return ArcShape{n(1, 500), x(0.1, 5), x(-180, 180), x(-360, 360)};
    case 3:
      return PathShape{n(1, 500), points, n(0, 1) == 1};
    case 4:
      return RingsShape{
          {n(1, 30), n(1, 60), n(1, 90)}, x(0, 1), x(1, 2), x(-180, 180), n(0, 1) == 1, n(0, 1) == 1};
    case 5:
      return SpiralShape{n(1, 500), x(-6, 6), x(0, 1), x(0, 2), x(-2, 2)};
    case 6:
      return ConeShape{n(1, 30), n(1, 60), x(0, 3), x(0, 3), x(0, 5), x(-180, 180), x(-360, 360), way()};
    case 7:
      return SpokesShape{n(1, 30), n(1, 60), x(0, 1), x(1, 3), x(-180, 180), x(-360, 360), way()};
    default:
      return PointsShape{points};
  }
}

}  // namespace chispa
