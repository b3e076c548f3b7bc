// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/show/strip.h"

#include <algorithm>
#include <cmath>
#include <set>

#include "core/base/overloaded.h"
#include "core/show/limits.h"

namespace chispa {
namespace {

int fittingPixels(double length_m, double pitch_m, const StripType& strip) {
  const double wanted =
      std::clamp(length_m / std::max(1e-9, pitch_m), 1.0, static_cast<double>(limits::kMaxPixelsOfSegment));
  return std::min(cuttableCount(strip, static_cast<int>(std::lround(wanted))), limits::kMaxPixelsOfSegment);
}

/// Makes a strip of `pixels` at a pitch, as far as its shape has a say.
void lay(Segment& segment, int pixels, double pitch_m) {
  std::visit(Overloaded{[&](LineShape& line) {
                          line = {pixels, pitch_m};
                        },
                        [&](ArcShape& arc) {
                          arc.count = pixels;
                          arc.radius_m = pitch_m * pixels / std::max(1e-6, std::abs(radians(arc.sweep_deg)));
                        },
                        [&](GridShape& grid) {
                          const bool alongRows = grid.runs == GridRuns::AlongRows;
                          (alongRows ? grid.columns : grid.rows) = pixels;
                          (alongRows ? grid.columnPitch_m : grid.rowPitch_m) = pitch_m;
                          tidyGrid(grid);
                        },
                        [&](PathShape& path) { path.count = pixels; },
                        [&](SpiralShape& spiral) { spiral.count = pixels; }, [](auto&) {}},
             segment.shape);
}

}  // namespace

bool hasFreeLength(const Segment& segment) {
  return std::holds_alternative<LineShape>(segment.shape) ||
         std::holds_alternative<ArcShape>(segment.shape) || std::holds_alternative<GridShape>(segment.shape);
}

bool hasFreeCount(const Segment& segment) {
  return hasFreeLength(segment) || std::holds_alternative<PathShape>(segment.shape) ||
         std::holds_alternative<SpiralShape>(segment.shape);
}

double pitch_m(const Segment& segment) {
  if (const auto* line = std::get_if<LineShape>(&segment.shape)) return line->pitch_m;
  if (const auto* grid = std::get_if<GridShape>(&segment.shape))
    return grid->runs == GridRuns::AlongRows ? grid->columnPitch_m : grid->rowPitch_m;
  return stripLength_m(segment.shape) / std::max(1, pixelCount(segment));
}

double runLength_m(const Segment& segment) {
  return std::holds_alternative<GridShape>(segment.shape) ? runPixels(segment) * pitch_m(segment)
                                                          : stripLength_m(segment.shape);
}

int runPixels(const Segment& segment) {
  const auto* grid = std::get_if<GridShape>(&segment.shape);
  if (!grid) return pixelCount(segment);
  return grid->runs == GridRuns::AlongRows ? grid->columns : grid->rows;
}

void setRunPixels(Segment& segment, int pixels, const StripType& strip, Follows follows) {
  const int count = std::min(cuttableCount(strip, std::max(1, pixels)), limits::kMaxPixelsOfSegment);
  const double length = runLength_m(segment);
  lay(segment, count, follows == Follows::PerMetre ? length / count : pitch_m(segment));
}

void setPitch(Segment& segment, double pitch, const StripType& strip, Follows follows) {
  // Where the geometry is fixed, the pitch says how many pixels there are.
  const bool countFollows = follows == Follows::Pixels || !hasFreeLength(segment);
  lay(segment, countFollows ? fittingPixels(runLength_m(segment), pitch, strip) : runPixels(segment), pitch);
}

void setRunLength(Segment& segment, double length, const StripType& strip, Follows follows) {
  if (follows == Follows::PerMetre)
    lay(segment, runPixels(segment), length / runPixels(segment));
  else
    lay(segment, fittingPixels(length, pitch_m(segment), strip), pitch_m(segment));
}

void tidyGrid(GridShape& grid) {
  grid.missing =
      std::clamp(grid.missing, 0, (grid.runs == GridRuns::AlongRows ? grid.columns : grid.rows) - 1);
  std::erase_if(grid.holes,
                [&](const GridCell& hole) { return hole.row >= grid.rows || hole.column >= grid.columns; });
  // A grid of holes alone would have no pixels.
  if (pixelCount(Shape(grid)) < 1) {
    grid.holes.clear();
    grid.missing = 0;
  }
}

void setGridPixels(GridShape& grid, int pixels) {
  const auto inDataOrder = [](GridShape whole) {
    whole.missing = 0;
    whole.holes.clear();
    return matrixCells(whole);
  };
  // Holes stay where they are on the strip, which begins in its corner.
  std::set<int> holes;
  const auto cells = inDataOrder(grid);
  for (std::size_t i = 0; i < cells.size(); ++i)
    if (std::binary_search(grid.holes.begin(), grid.holes.end(), cells[i])) holes.insert(static_cast<int>(i));
  const auto holesBefore = [&](int end) {
    return static_cast<int>(std::distance(holes.begin(), holes.lower_bound(end)));
  };
  int reached = pixels;
  while (reached - holesBefore(reached) < pixels) ++reached;
  const bool alongRows = grid.runs == GridRuns::AlongRows;
  const int side = alongRows ? grid.columns : grid.rows;
  const int strips = std::max(1, (reached + side - 1) / side);
  (alongRows ? grid.rows : grid.columns) = strips;
  grid.missing = strips * side - reached;
  grid.holes.clear();
  const auto now = inDataOrder(grid);
  for (const int hole : holes)
    if (hole < reached) grid.holes.push_back(now[static_cast<std::size_t>(hole)]);
  std::sort(grid.holes.begin(), grid.holes.end());
}

}  // namespace chispa
