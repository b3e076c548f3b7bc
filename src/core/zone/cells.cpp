// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/zone/cells.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numeric>

namespace chispa {
namespace {

/// The pixels that one part of a zone takes, and its grid if it is one.
struct PartPixels {
  std::vector<std::uint32_t> pixels;
  const Shape* matrix = nullptr;
  int matrixFirst = 0;
};

PartPixels pixelsOfPart(const Show& show, const PixelMap& map, const ZonePart& part) {
  PartPixels taken;
  const Fixture* fixture = find(show.fixtures, part.fixture);
  const auto range = map.rangeOf(part.fixture);
  if (!fixture || !range) return taken;
  int first = range->first;
  int count = range->count;
  const std::size_t segments = fixture->segments.size();
  std::size_t only = segments == 1 ? 0 : segments;
  if (part.segment) {
    only = static_cast<std::size_t>(*part.segment);
    if (*part.segment < 0 || only >= segments) return taken;
    first += firstPixelOf(*fixture, only);
    count = pixelCount(fixture->segments[only].shape);
  }
  if (only < segments && matrixCell(fixture->segments[only].shape, 0)) taken.matrix = &fixture->segments[only].shape;
  taken.matrixFirst = first;
  taken.pixels.resize(static_cast<std::size_t>(count));
  std::iota(taken.pixels.begin(), taken.pixels.end(), static_cast<std::uint32_t>(first));
  if (part.reversed) std::reverse(taken.pixels.begin(), taken.pixels.end());
  return taken;
}

/// Appends cells to a ZoneCells one by one.
class CellWriter {
 public:
  explicit CellWriter(ZoneCells& cells) : cells_(cells) { cells_.firstPixel.push_back(0); }

  void add(int column, int row, std::span<const std::uint32_t> pixels) {
    cells_.column.push_back(column);
    cells_.row.push_back(row);
    cells_.pixels.insert(cells_.pixels.end(), pixels.begin(), pixels.end());
    cells_.firstPixel.push_back(static_cast<std::uint32_t>(cells_.pixels.size()));
    cells_.columns = std::max(cells_.columns, column + 1);
    cells_.rows = std::max(cells_.rows, row + 1);
  }

 private:
  ZoneCells& cells_;
};

/// A part as a strip of cells: in one row (Strand) or as a column of its own (Strings).
void addStrip(CellWriter& writer, const PartPixels& part, int perCell, bool asColumn, int& next, int partIndex) {
  const std::size_t step = perCell > 0 ? static_cast<std::size_t>(perCell) : std::max<std::size_t>(1, part.pixels.size());
  int index = 0;
  for (std::size_t at = 0; at < part.pixels.size(); at += step, ++index) {
    const auto pixels = std::span(part.pixels).subspan(at, std::min(step, part.pixels.size() - at));
    if (asColumn)
      writer.add(partIndex, index, pixels);
    else
      writer.add(next++, 0, pixels);
  }
}

/// A part as the grid it is, to the right of what is there; a part that is no grid becomes one column.
void addGrid(CellWriter& writer, const PartPixels& part, int& nextColumn) {
  int width = 0;
  for (std::size_t i = 0; i < part.pixels.size(); ++i) {
    const auto pixel = std::span(part.pixels).subspan(i, 1);
    const GridCell at = part.matrix ? *matrixCell(*part.matrix, static_cast<int>(pixel[0]) - part.matrixFirst)
                                    : GridCell{static_cast<int>(i), 0};
    writer.add(nextColumn + at.column, at.row, pixel);
    width = std::max(width, at.column + 1);
  }
  nextColumn += width;
}

bool isPlain(const ZoneCells& cells) {
  if (cells.pixels.empty() || cells.pixels.size() != cells.column.size()) return false;
  for (std::size_t i = 0; i < cells.pixels.size(); ++i)
    if (cells.pixels[i] != cells.pixels[0] + i || cells.firstPixel[i] != i) return false;
  return true;
}

Vec3 centreOfCell(const ZoneCells& cells, const PixelMap& map, int cell) {
  Vec3 sum;
  const auto pixels = cells.pixelsOf(cell);
  for (const std::uint32_t pixel : pixels) sum = sum + map.positions[pixel];
  return pixels.empty() ? sum : sum * (1.0 / static_cast<double>(pixels.size()));
}

struct Extent {
  Vec3 low{1e30, 1e30, 1e30};
  Vec3 high{-1e30, -1e30, -1e30};

  void include(Vec3 p) {
    low = {std::min(low.x, p.x), std::min(low.y, p.y), std::min(low.z, p.z)};
    high = {std::max(high.x, p.x), std::max(high.y, p.y), std::max(high.z, p.z)};
  }
  Vec3 centre() const { return (low + high) * 0.5; }
};

/// Where a cell lies for "around" and "outward": a lone grid in its own plane, all else seen from above.
std::vector<Vec3> planePoints(const ZoneCells& cells, const std::vector<Vec3>& world, bool inOwnPlane) {
  if (!inOwnPlane) return world;
  std::vector<Vec3> plane(world.size());
  for (std::size_t i = 0; i < plane.size(); ++i)
    plane[i] = {static_cast<double>(cells.column[i]), static_cast<double>(cells.row[i]), 0};
  return plane;
}

void placePolar(ZoneCells& cells, const std::vector<Vec3>& plane) {
  Extent extent;
  for (const Vec3& p : plane) extent.include(p);
  const Vec3 centre = extent.centre();
  double farthest = 0;
  for (const Vec3& p : plane) farthest = std::max(farthest, std::hypot(p.x - centre.x, p.y - centre.y));
  auto& around = cells.places[static_cast<std::size_t>(Axis::Around)];
  auto& outward = cells.places[static_cast<std::size_t>(Axis::Outward)];
  for (const Vec3& p : plane) {
    const double turn = std::atan2(p.y - centre.y, p.x - centre.x) / (2 * kPi);
    around.push_back(static_cast<float>(turn < 0 ? turn + 1 : turn));
    outward.push_back(static_cast<float>(farthest > 0 ? std::hypot(p.x - centre.x, p.y - centre.y) / farthest : 0));
  }
}

void placeCells(ZoneCells& cells, const PixelMap& map, bool inOwnPlane) {
  const int n = cells.count();
  std::vector<Vec3> world(static_cast<std::size_t>(n));
  Extent extent;
  for (int i = 0; i < n; ++i) {
    world[static_cast<std::size_t>(i)] = centreOfCell(cells, map, i);
    extent.include(world[static_cast<std::size_t>(i)]);
  }
  const double tall = extent.high.z - extent.low.z;
  const auto middle = [](int index, int count) {
    return (static_cast<float>(index) + 0.5f) / static_cast<float>(std::max(1, count));
  };
  const auto put = [&](Axis axis, float place) { cells.places[static_cast<std::size_t>(axis)].push_back(place); };
  for (int i = 0; i < n; ++i) {
    const auto at = static_cast<std::size_t>(i);
    put(Axis::Along, middle(i, n));
    put(Axis::Columns, middle(cells.column[at], cells.columns));
    put(Axis::Rows, middle(cells.row[at], cells.rows));
    put(Axis::Height, tall > 1e-9 ? static_cast<float>((world[at].z - extent.low.z) / tall) : 0.5f);
  }
  placePolar(cells, planePoints(cells, world, inOwnPlane));
}

}  // namespace

std::span<const std::uint32_t> ZoneCells::pixelsOf(int cell) const {
  const auto at = static_cast<std::size_t>(cell);
  return std::span(pixels).subspan(firstPixel[at], firstPixel[at + 1] - firstPixel[at]);
}

namespace {

/// A flat grid alone has a plane of its own; a cone is seen from above like everything else.
bool isLoneGrid(const Show& show, const Zone& zone) {
  const Fixture* fixture = zone.parts.size() == 1 ? find(show.fixtures, zone.parts[0].fixture) : nullptr;
  return fixture && zone.layout == ZoneLayout::SideBySide && !fixture->segments.empty() &&
         std::holds_alternative<GridShape>(fixture->segments[0].shape);
}

}  // namespace

ZoneCells cellsOf(const Show& show, const PixelMap& map, const Zone& zone) {
  ZoneCells cells;
  CellWriter writer(cells);
  int next = 0;
  int partIndex = 0;
  for (const ZonePart& part : zone.parts) {
    const PartPixels taken = pixelsOfPart(show, map, part);
    if (taken.pixels.empty()) continue;
    if (zone.layout == ZoneLayout::SideBySide)
      addGrid(writer, taken, next);
    else
      addStrip(writer, taken, zone.pixelsPerCell, zone.layout == ZoneLayout::Strings, next, partIndex++);
  }
  cells.isPlain = isPlain(cells);
  placeCells(cells, map, isLoneGrid(show, zone));
  return cells;
}

}  // namespace chispa
