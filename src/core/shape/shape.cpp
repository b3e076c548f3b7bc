// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/shape/shape.h"

#include <cstdlib>

namespace chispa {
namespace {

template <class... F>
struct Overloaded : F... {
  using F::operator()...;
};

Vec3 pointOf(const LineShape& line, int i) { return {(i + 0.5) * line.pitch_m, 0, 0}; }

Vec3 pointOf(const GridShape& grid, int i) {
  const GridCell at = gridCell(grid, i);
  return {(at.column - (grid.columns - 1) / 2.0) * grid.columnPitch_m,
          (at.row - (grid.rows - 1) / 2.0) * grid.rowPitch_m, 0};
}

Vec3 pointOf(const ArcShape& arc, int i) {
  const double angle = radians(arc.start_deg + arc.sweep_deg * (i + 0.5) / arc.count);
  return {arc.radius_m * std::cos(angle), arc.radius_m * std::sin(angle), 0};
}

}  // namespace

GridCell gridCell(const GridShape& grid, int pixel) {
  const bool alongRows = grid.runs == GridRuns::AlongRows;
  const int stripLength = alongRows ? grid.columns : grid.rows;
  const int strip = pixel / stripLength;
  int along = pixel % stripLength;
  if (grid.serpentine && strip % 2 == 1) along = stripLength - 1 - along;
  GridCell at = alongRows ? GridCell{strip, along} : GridCell{along, strip};
  if (grid.start == Corner::TopLeft || grid.start == Corner::TopRight) at.row = grid.rows - 1 - at.row;
  if (grid.start == Corner::BottomRight || grid.start == Corner::TopRight)
    at.column = grid.columns - 1 - at.column;
  return at;
}

int pixelCount(const Shape& shape) {
  return std::visit(Overloaded{[](const GridShape& grid) { return grid.columns * grid.rows; },
                               [](const auto& strip) { return strip.count; }},
                    shape);
}

std::vector<Vec3> localPositions(const Shape& shape) {
  std::vector<Vec3> points(static_cast<std::size_t>(pixelCount(shape)));
  std::visit(
      [&](const auto& s) {
        for (std::size_t i = 0; i < points.size(); ++i) points[i] = pointOf(s, static_cast<int>(i));
      },
      shape);
  return points;
}

double stripLength_m(const Shape& shape) {
  return std::visit(
      Overloaded{[](const LineShape& line) { return line.count * line.pitch_m; },
                 [](const GridShape& grid) {
                   const bool alongRows = grid.runs == GridRuns::AlongRows;
                   return grid.columns * grid.rows * (alongRows ? grid.columnPitch_m : grid.rowPitch_m);
                 },
                 [](const ArcShape& arc) { return std::abs(radians(arc.sweep_deg)) * arc.radius_m; }},
      shape);
}

std::string_view shapeName(const Shape& shape) {
  return std::visit(Overloaded{[](const LineShape&) { return "line"; }, [](const GridShape&) { return "grid"; },
                               [](const ArcShape&) { return "arc"; }},
                    shape);
}

}  // namespace chispa
