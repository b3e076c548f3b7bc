// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/shape/shape.h"

#include <algorithm>
#include <cstdlib>
#include <numeric>

#include "core/base/overloaded.h"
#include "core/shape/polyline.h"

namespace chispa {
namespace {

int countOf(const GridShape& grid) {
  // Only holes make it necessary to go through the cells.
  return grid.holes.empty() ? grid.columns * grid.rows - grid.missing
                            : static_cast<int>(matrixCells(grid).size());
}

double lengthOf(const GridShape& grid) {
  return countOf(grid) * (grid.runs == GridRuns::AlongRows ? grid.columnPitch_m : grid.rowPitch_m);
}

double lengthOf(const RingsShape& rings) {
  double sum = 0;
  for (std::size_t i = 0; i < rings.counts.size(); ++i) sum += 2 * kPi * ringRadius_m(rings, i);
  return sum;
}

}  // namespace

int pixelCount(const Shape& shape) {
  return std::visit(
      Overloaded{[](const GridShape& s) { return countOf(s); },
                 [](const ConeShape& s) { return s.strings * s.perString; },
                 [](const SpokesShape& s) { return s.spokes * s.perSpoke; },
                 [](const RingsShape& s) { return std::accumulate(s.counts.begin(), s.counts.end(), 0); },
                 [](const PointsShape& s) { return static_cast<int>(s.points.size()); },
                 [](const auto& strip) { return strip.count; }},
      shape);
}

double stripLength_m(const Shape& shape) {
  return std::visit(
      Overloaded{[](const LineShape& line) { return line.count * line.pitch_m; },
                 [](const GridShape& grid) { return lengthOf(grid); },
                 [](const ArcShape& arc) { return std::abs(radians(arc.sweep_deg)) * arc.radius_m; },
                 [](const PathShape& path) { return polylineLength_m(polylineOf(path)); },
                 [](const SpiralShape& spiral) { return polylineLength_m(polylineOf(spiral)); },
                 [](const ConeShape& cone) {
                   return cone.strings * std::hypot(cone.height_m, cone.bottomRadius_m - cone.topRadius_m);
                 },
                 [](const SpokesShape& s) { return s.spokes * std::abs(s.outerRadius_m - s.innerRadius_m); },
                 [](const RingsShape& rings) { return lengthOf(rings); },
                 [](const PointsShape& s) { return polylineLength_m(s.points); }},
      shape);
}

std::string_view shapeName(const Shape& shape) {
  static constexpr std::string_view kNames[] = {"line",   "grid", "arc",    "path",  "rings",
                                                "spiral", "cone", "spokes", "points"};
  static_assert(std::size(kNames) == std::variant_size_v<Shape>);
  return kNames[shape.index()];
}

}  // namespace chispa
