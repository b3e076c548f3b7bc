// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/zone/cells.h"

#include <algorithm>
#include <cmath>
#include <limits>

#include "core/zone/direction.h"
#include "core/zone/drafts.h"
#include "core/zone/measures.h"
#include "core/zone/movedcells.h"

namespace chispa {
namespace {

/// Sorts things that have places as a zone's order says.
class Sorter {
 public:
  Sorter(const Zone& zone, const ZoneFrame& frame) : zone_(zone), frame_(frame) {}

  bool isNeeded() const { return zone_.order != ZoneOrder::Listed; }

  template <class T, class PlaceOf>
  void sort(std::vector<T>& things, PlaceOf placeOf) const {
    std::vector<std::pair<double, std::size_t>> keys;
    for (std::size_t i = 0; i < things.size(); ++i) keys.emplace_back(keyOf(placeOf(things[i])), i);
    // Places that differ by less than rounding count as one, so that a level row stays in its data order.
    std::stable_sort(keys.begin(), keys.end(), [this](const auto& a, const auto& b) {
      const double x = std::round(a.first * 1e6);
      const double y = std::round(b.first * 1e6);
      return zone_.backwards ? y < x : x < y;
    });
    std::vector<T> sorted;
    for (const auto& key : keys) sorted.push_back(std::move(things[key.second]));
    things = std::move(sorted);
  }

 private:
  double keyOf(Vec3 p) const {
    switch (zone_.order) {
      case ZoneOrder::LeftToRight:
        return p.x;
      case ZoneOrder::FrontToBack:
        return p.y;
      case ZoneOrder::Upward:
        return p.z;
      case ZoneOrder::Around:
        return frame_.angle_deg(p);
      case ZoneOrder::Outward:
        return frame_.radius_m(p);
      case ZoneOrder::Listed:
        break;
    }
    return 0;
  }

  const Zone& zone_;
  const ZoneFrame& frame_;
};

bool isPlain(const ZoneCells& cells) {
  if (cells.pixels.empty() || cells.pixels.size() != cells.column.size()) return false;
  for (std::size_t i = 0; i < cells.pixels.size(); ++i)
    if (cells.pixels[i] != cells.pixels[0] + i || cells.firstPixel[i] != i) return false;
  return true;
}

void write(const Drafts& drafts, const PixelMap& map, ZoneCells& cells) {
  const std::size_t count = drafts.cells.size();
  cells.column.reserve(count);
  cells.row.reserve(count);
  cells.position_m.reserve(count);
  cells.firstPixel.reserve(count + 1);
  cells.pixels.reserve(drafts.pixels.size());
  cells.firstPixel.push_back(0);
  for (const Draft& cell : drafts.cells) {
    cells.column.push_back(cell.column);
    cells.row.push_back(cell.row);
    const auto pixels = drafts.pixelsOf(cell);
    cells.pixels.insert(cells.pixels.end(), pixels.begin(), pixels.end());
    cells.firstPixel.push_back(static_cast<std::uint32_t>(cells.pixels.size()));
    cells.position_m.push_back(middleOf(map, pixels));
    cells.columns = std::max(cells.columns, cell.column + 1);
    cells.rows = std::max(cells.rows, cell.row + 1);
  }
  cells.isPlain = isPlain(cells);
}

}  // namespace

double ZoneCells::lengthAlong(Axis axis, double turn_deg, double tilt_deg) const {
  constexpr double kLeast_m = 1e-3;
  if (axis != Axis::Plane) return std::max(kLeast_m, length_m[static_cast<std::size_t>(axis)]);
  const Vec3 way = directionOf(turn_deg, tilt_deg);
  return std::max(kLeast_m,
                  std::abs(way.x) * size_m.x + std::abs(way.y) * size_m.y + std::abs(way.z) * size_m.z);
}

void planePlaces(const ZoneCells& cells, double turn_deg, double tilt_deg, std::span<float> out) noexcept {
  const Vec3 way = directionOf(turn_deg, tilt_deg);
  float low = std::numeric_limits<float>::max();
  float high = -low;
  const std::size_t count = cells.position_m.size();
  for (std::size_t i = 0; i < count; ++i) {
    out[i] = static_cast<float>(dot(cells.position_m[i], way));
    low = std::min(low, out[i]);
    high = std::max(high, out[i]);
  }
  const float scale = high - low > 1e-6f ? 1 / (high - low) : 0;
  for (std::size_t i = 0; i < count; ++i) out[i] = scale > 0 ? (out[i] - low) * scale : 0.5f;
}

std::span<const std::uint32_t> ZoneCells::pixelsOf(int cell) const {
  const auto at = static_cast<std::size_t>(cell);
  return std::span(pixels).subspan(firstPixel[at], firstPixel[at + 1] - firstPixel[at]);
}

namespace {

/// What the parts of a zone have; those that have nothing are passed over.
std::vector<PartPixels> pixelsOfParts(const Show& show, const PixelMap& map, const Zone& zone) {
  std::vector<PartPixels> parts;
  for (const ZonePart& part : zone.parts)
    if (PartPixels taken = pixelsOfPart(show, map, part); !taken.pixels.empty())
      parts.push_back(std::move(taken));
  return parts;
}

ZoneFrame frameOf(const std::vector<PartPixels>& parts, const PixelMap& map, const Zone& zone) {
  std::size_t count = 0;
  for (const PartPixels& part : parts) count += part.pixels.size();
  std::vector<Vec3> points;
  points.reserve(count);
  for (const PartPixels& part : parts)
    for (const std::uint32_t pixel : part.pixels) points.push_back(map.positions[pixel]);
  return frameOf(points, zone.centre_m);
}

bool isSortedByPlace(const Zone& zone) {
  return zone.order != ZoneOrder::Listed || (zone.layout == ZoneLayout::Panels && zone.panelsAcross == 0);
}

}  // namespace

std::shared_ptr<const ZoneCells> movedCells(const Show& show, const PixelMap& map, const Zone& zone,
                                            const PixelMap& before, const ZoneCells& cells) {
  if (isSortedByPlace(zone)) return nullptr;
  const std::vector<PartPixels> parts = pixelsOfParts(show, map, zone);
  auto moved = std::make_shared<ZoneCells>(cells);
  moved->frame = frameOf(parts, map, zone);
  for (int cell = 0; cell < moved->count(); ++cell)
    moved->position_m[static_cast<std::size_t>(cell)] = middleOf(map, moved->pixelsOf(cell));
  measureMoved(zone, parts, map, before, *moved);
  return moved;
}

ZoneCells cellsOf(const Show& show, const PixelMap& map, const Zone& zone) {
  std::vector<PartPixels> parts = pixelsOfParts(show, map, zone);
  ZoneCells cells;
  cells.frame = frameOf(parts, map, zone);
  const Sorter sorter(zone, cells.frame);
  const bool sortsParts = zone.layout != ZoneLayout::Strand;
  if (sorter.isNeeded() && sortsParts)
    sorter.sort(parts, [&](const PartPixels& part) { return middleOf(map, part.pixels); });
  std::vector<Drafts> drafts;
  for (const PartPixels& part : parts)
    drafts.push_back(keepsGrids(zone.layout)
                         ? gridOf(part, zone.pixelsPerCell)
                         : stripOf(part, zone.pixelsPerCell, zone.layout == ZoneLayout::Strings));
  Drafts together = zone.layout == ZoneLayout::Panels && zone.panelsAcross > 0
                        ? joinedInRows(drafts, zone.panelsAcross)
                        : laidTogether(zone, drafts);
  if (zone.layout == ZoneLayout::Panels && zone.panelsAcross == 0 && !together.cells.empty())
    together = joinedAsTheyHang(together, map, zone.countsGaps);
  if (sorter.isNeeded() && !sortsParts) {
    sorter.sort(together.cells, [&](const Draft& cell) { return middleOf(map, together.pixelsOf(cell)); });
    for (std::size_t i = 0; i < together.cells.size(); ++i) together.cells[i].column = static_cast<int>(i);
  }
  write(together, map, cells);
  measureCells(zone, parts, map, cells);
  return cells;
}

}  // namespace chispa
