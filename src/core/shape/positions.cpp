// SPDX-License-Identifier: GPL-3.0-or-later
#include <algorithm>
#include <cstdlib>

#include "core/shape/polyline.h"
#include "core/shape/shape.h"

namespace chispa {
namespace {

/// Angle of string `i` of `count` over a sweep: a full turn leaves no two strings on one another.
double stringAngle(double start_deg, double sweep_deg, int i, int count) {
  const bool isFull = std::abs(std::abs(sweep_deg) - 360) < 1e-9;
  const int gaps = isFull ? count : std::max(1, count - 1);
  return start_deg + sweep_deg * i / gaps;
}

/// Place 0–1 of cell `row` of `rows`: both ends are taken.
double share(int row, int rows) {
  return rows > 1 ? static_cast<double>(row) / (rows - 1) : 0.5;
}

template <class F>
std::vector<Vec3> points(int count, F pointOf) {
  std::vector<Vec3> all(static_cast<std::size_t>(count));
  for (int i = 0; i < count; ++i) all[static_cast<std::size_t>(i)] = pointOf(i);
  return all;
}

template <class F>
std::vector<Vec3> pointsOfCells(const Shape& matrix, F pointOf) {
  std::vector<Vec3> all;
  for (const GridCell& cell : matrixCells(matrix)) all.push_back(pointOf(cell));
  return all;
}

std::vector<Vec3> positionsOf(const LineShape& line) {
  return points(line.count, [&](int i) { return Vec3{(i + 0.5) * line.pitch_m, 0, 0}; });
}

std::vector<Vec3> positionsOf(const GridShape& grid) {
  return pointsOfCells(grid, [&](GridCell at) {
    return Vec3{(at.column - (grid.columns - 1) / 2.0) * grid.columnPitch_m,
                (at.row - (grid.rows - 1) / 2.0) * grid.rowPitch_m, 0};
  });
}

std::vector<Vec3> positionsOf(const ArcShape& arc) {
  return points(arc.count, [&](int i) {
    return onCircle(arc.radius_m, arc.start_deg + arc.sweep_deg * (i + 0.5) / arc.count);
  });
}

std::vector<Vec3> positionsOf(const PathShape& path) {
  return spreadAlong(polylineOf(path), path.count);
}
std::vector<Vec3> positionsOf(const SpiralShape& spiral) {
  return spreadAlong(polylineOf(spiral), spiral.count);
}
std::vector<Vec3> positionsOf(const PointsShape& shape) {
  return shape.points;
}

std::vector<Vec3> positionsOf(const RingsShape& rings) {
  std::vector<Vec3> all;
  const double sense = rings.clockwise ? -360.0 : 360.0;
  for (std::size_t n = 0; n < rings.counts.size(); ++n) {
    const std::size_t ring = rings.outsideIn ? rings.counts.size() - 1 - n : n;
    const int count = rings.counts[ring];
    for (int i = 0; i < count; ++i)
      all.push_back(onCircle(ringRadius_m(rings, ring), rings.start_deg + sense * i / count));
  }
  return all;
}

std::vector<Vec3> positionsOf(const ConeShape& cone) {
  return pointsOfCells(cone, [&](GridCell at) {
    const double up = share(at.row, cone.perString);
    return onCircle(cone.bottomRadius_m + (cone.topRadius_m - cone.bottomRadius_m) * up,
                    stringAngle(cone.start_deg, cone.sweep_deg, at.column, cone.strings), cone.height_m * up);
  });
}

std::vector<Vec3> positionsOf(const SpokesShape& s) {
  return pointsOfCells(s, [&](GridCell at) {
    return onCircle(s.innerRadius_m + (s.outerRadius_m - s.innerRadius_m) * share(at.row, s.perSpoke),
                    stringAngle(s.start_deg, s.sweep_deg, at.column, s.spokes));
  });
}

}  // namespace

std::vector<Vec3> localPositions(const Shape& shape) {
  return std::visit([](const auto& s) { return positionsOf(s); }, shape);
}

}  // namespace chispa
