// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/zone/measures.h"

#include <algorithm>
#include <cmath>
#include <functional>
#include <limits>
#include <numeric>

#include "core/zone/drafts.h"

namespace chispa {
namespace {

/// Distances of all cells from the middle; how far the farthest is, and how long the way once round at the
/// mean.
std::vector<double> measureRadii(ZoneCells& cells) {
  std::vector<double> radius_m;
  radius_m.reserve(cells.position_m.size());
  double sum = 0, farthest = 0;
  for (const Vec3& p : cells.position_m) {
    radius_m.push_back(cells.frame.radius_m(p));
    sum += radius_m.back();
    farthest = std::max(farthest, radius_m.back());
  }
  cells.length_m[static_cast<std::size_t>(Axis::Outward)] = farthest;
  cells.length_m[static_cast<std::size_t>(Axis::Around)] =
      2 * 3.14159265358979 * sum / std::max<double>(1, static_cast<double>(cells.count()));
  return radius_m;
}

std::vector<float>& placesOf(ZoneCells& cells, Axis axis) {
  return cells.places[static_cast<std::size_t>(axis)];
}

/// Numbers of cells, and their places along the zone, its columns and its rows.
void numberCells(ZoneCells& cells) {
  const std::size_t n = cells.column.size();
  const auto middle = [](std::size_t index, std::size_t count) {
    return static_cast<float>((static_cast<double>(index) + 0.5) /
                              static_cast<double>(std::max<std::size_t>(1, count)));
  };
  auto &along = placesOf(cells, Axis::Along), &columns = placesOf(cells, Axis::Columns),
       &rows = placesOf(cells, Axis::Rows);
  for (auto* numbers : {&cells.indexes, &cells.columnNumbers, &cells.rowNumbers, &along, &columns, &rows})
    numbers->resize(n);
  for (std::size_t i = 0; i < n; ++i) {
    cells.indexes[i] = static_cast<float>(i);
    cells.columnNumbers[i] = static_cast<float>(cells.column[i]);
    cells.rowNumbers[i] = static_cast<float>(cells.row[i]);
    along[i] = middle(i, n);
    columns[i] = middle(static_cast<std::size_t>(cells.column[i]), static_cast<std::size_t>(cells.columns));
    rows[i] = middle(static_cast<std::size_t>(cells.row[i]), static_cast<std::size_t>(cells.rows));
  }
}

/// Their places up, around and outward.
void placeCells(const std::vector<double>& radius_m, ZoneCells& cells) {
  const auto n = cells.position_m.size();
  double low = std::numeric_limits<double>::max();
  double high = -low;
  const double farthest = cells.length_m[static_cast<std::size_t>(Axis::Outward)];
  for (const Vec3& p : cells.position_m) {
    low = std::min(low, p.z);
    high = std::max(high, p.z);
  }
  auto &height = placesOf(cells, Axis::Height), &around = placesOf(cells, Axis::Around),
       &outward = placesOf(cells, Axis::Outward);
  for (auto* places : {&height, &around, &outward}) places->resize(n);
  for (std::size_t i = 0; i < n; ++i) {
    const Vec3& p = cells.position_m[i];
    height[i] = static_cast<float>(high - low > 1e-9 ? (p.z - low) / (high - low) : 0.5);
    around[i] = static_cast<float>(cells.frame.angle_deg(p) / 360);
    outward[i] = static_cast<float>(farthest > 0 ? radius_m[i] / farthest : 0);
  }
}

/// Face of a matrix (square cells), or of strings side by side (stretched to a square).
void faceOfGrid(ZoneCells& cells, bool isMatrix) {
  const double across = isMatrix ? std::max(cells.columns, cells.rows) : cells.columns;
  const double upward = isMatrix ? across : cells.rows;
  cells.x.reserve(cells.column.size());
  cells.y.reserve(cells.column.size());
  for (std::size_t i = 0; i < cells.column.size(); ++i) {
    cells.x.push_back(static_cast<float>((2 * cells.column[i] + 1 - cells.columns) / across));
    cells.y.push_back(static_cast<float>((2 * cells.row[i] + 1 - cells.rows) / upward));
  }
}

/// Which cell is where; places that no cell has take the one before them.
void tablePlaces(ZoneCells& cells) {
  const auto places = static_cast<std::size_t>(cells.columns) * static_cast<std::size_t>(cells.rows);
  constexpr std::uint32_t kNone = 0xffffffff;
  cells.cellOfPlace.assign(places, kNone);
  for (std::size_t i = 0; i < cells.column.size(); ++i)
    cells.cellOfPlace[static_cast<std::size_t>(cells.column[i]) * static_cast<std::size_t>(cells.rows) +
                      static_cast<std::size_t>(cells.row[i])] = static_cast<std::uint32_t>(i);
  std::uint32_t last = 0;
  for (std::uint32_t& cell : cells.cellOfPlace) last = cell = cell == kNone ? last : cell;
}

/// Face of a strand: as it lies in its frame; one that stands upright is a line.
void faceOfStrand(ZoneCells& cells) {
  const Vec3 normal = cross(cells.frame.right, cells.frame.up);
  double wide = 0, deep = 0;
  for (const Vec3& p : cells.position_m) {
    const Vec3 off = p - cells.frame.centre_m;
    wide = std::max({wide, std::abs(dot(off, cells.frame.right)), std::abs(dot(off, cells.frame.up))});
    deep = std::max(deep, std::abs(dot(off, normal)));
  }
  const bool isUpright = wide <= 0 || deep > wide;
  cells.x.clear();
  cells.y.clear();
  cells.x.reserve(cells.position_m.size());
  cells.y.reserve(cells.position_m.size());
  for (std::size_t i = 0; i < cells.position_m.size(); ++i) {
    const Vec3 off = cells.position_m[i] - cells.frame.centre_m;
    cells.x.push_back(isUpright ? 2 * cells.along(Axis::Along)[i] - 1
                                : static_cast<float>(dot(off, cells.frame.right) / wide));
    cells.y.push_back(isUpright ? 0 : static_cast<float>(dot(off, cells.frame.up) / wide));
  }
}

void measureFace(ZoneCells& cells) {
  const auto reach = [](const std::vector<float>& places, float half) {
    float most = 0;
    for (const float at : places) most = std::max(most, std::abs(at));
    return std::min(most + half, 1.f);
  };
  const auto cell = 1 / static_cast<float>(std::max({cells.columns, cells.rows, 1}));
  cells.halfWidth = reach(cells.x, cell);
  cells.halfHeight = reach(cells.y, cell);
}

/// The pieces at `middles` in the order of a walk that always goes on to the nearest of those that are left;
/// as they are if there are so many that it would take long.
std::vector<std::uint16_t> walkOf(const std::vector<Vec3>& middles) {
  constexpr std::size_t kMaxWalked = 1'000;
  std::vector<std::uint16_t> place(middles.size());
  std::iota(place.begin(), place.end(), std::uint16_t{0});
  if (middles.size() > kMaxWalked) return place;
  std::vector<std::size_t> left(middles.size());
  std::iota(left.begin(), left.end(), std::size_t{0});
  for (std::size_t step = 1, at = 0; !left.empty(); ++step) {
    std::erase(left, at);
    if (left.empty()) break;
    const auto apart = [&](std::size_t i) {
      const Vec3 way = middles[i] - middles[at];
      return dot(way, way);
    };
    at = *std::min_element(left.begin(), left.end(),
                           [&](std::size_t a, std::size_t b) { return apart(a) < apart(b); });
    place[at] = static_cast<std::uint16_t>(step);
  }
  return place;
}

std::vector<std::uint16_t> walkOf(const std::vector<PartPixels>& parts, const PixelMap& map) {
  std::vector<Vec3> middles;
  for (const PartPixels& part : parts) middles.push_back(middleOf(map, part.pixels));
  return walkOf(middles);
}

/// Says of each cell which of `parts` it is of. A pixel that is in several counts for the first.
void findPieces(const std::vector<PartPixels>& parts, const PixelMap& map, ZoneCells& cells) {
  cells.pieces = static_cast<int>(std::min<std::size_t>(parts.size(), 0xffff));
  if (cells.pixels.empty() || parts.empty()) return;
  const auto [low, high] = std::minmax_element(cells.pixels.begin(), cells.pixels.end());
  constexpr std::uint32_t kNone = 0xffffffff;
  struct Place {
    std::uint32_t part = kNone;
    float along = 0;
  };
  std::vector<Place> placeOf(*high - *low + 1);
  for (std::size_t p = parts.size(); p-- > 0;)
    for (std::size_t i = 0; i < parts[p].pixels.size(); ++i)
      if (const std::uint32_t pixel = parts[p].pixels[i]; pixel >= *low && pixel <= *high)
        placeOf[pixel - *low] = {static_cast<std::uint32_t>(std::min<std::size_t>(p, 0xfffe)),
                                 (static_cast<float>(i) + 0.5f) / static_cast<float>(parts[p].pixels.size())};
  const auto walk = walkOf(parts, map);
  cells.piece.clear();
  cells.alongPiece.clear();
  cells.piece.reserve(cells.column.size());
  cells.alongPiece.reserve(cells.column.size());
  for (int cell = 0; cell < cells.count(); ++cell) {
    const Place& place = placeOf[cells.pixelsOf(cell).front() - *low];
    cells.piece.push_back(place.part == kNone ? std::uint16_t{0} : walk[place.part]);
    cells.alongPiece.push_back(place.along);
  }
}

/// The way along the cells that `cellAt` numbers, `count` of them, and half a cell more at either end.
double polylineOf(const ZoneCells& cells, int count, const std::function<std::size_t(int)>& cellAt) {
  double sum = 0;
  for (int n = 1; n < count; ++n)
    sum += length(cells.position_m[cellAt(n)] - cells.position_m[cellAt(n - 1)]);
  return count > 1 ? sum * count / (count - 1) : 0;
}

void measureLengths(ZoneCells& cells) {
  double along = 0;
  int steps = 0;
  Vec3 low{1e30, 1e30, 1e30}, high{-1e30, -1e30, -1e30};
  for (std::size_t i = 0; i < cells.position_m.size(); ++i) {
    const Vec3& p = cells.position_m[i];
    low = {std::min(low.x, p.x), std::min(low.y, p.y), std::min(low.z, p.z)};
    high = {std::max(high.x, p.x), std::max(high.y, p.y), std::max(high.z, p.z)};
    if (i == 0 || cells.piece[i] != cells.piece[i - 1]) continue;
    along += length(p - cells.position_m[i - 1]);
    ++steps;
  }
  if (cells.count() > 0) cells.size_m = high - low;
  const auto set = [&cells](Axis axis, double metres) {
    cells.length_m[static_cast<std::size_t>(axis)] = metres;
  };
  set(Axis::Along, steps > 0 ? along * cells.count() / steps : 0);
  set(Axis::Height, cells.size_m.z);
  if (cells.rows <= 1) return;
  const int row = cells.rows / 2, column = cells.columns / 2;
  set(Axis::Columns, polylineOf(cells, cells.columns, [&](int n) { return cells.cellAt(n, row); }));
  set(Axis::Rows, polylineOf(cells, cells.rows, [&](int n) { return cells.cellAt(column, n); }));
}

/// All that depends on where the cells lie, but for their pieces, which are there.
void measurePlaces(const Zone& zone, ZoneCells& cells) {
  placeCells(measureRadii(cells), cells);
  if (zone.layout == ZoneLayout::Strand) faceOfStrand(cells);
  measureFace(cells);
  measureLengths(cells);
}

}  // namespace

void measureCells(const Zone& zone, const std::vector<PartPixels>& parts, const PixelMap& map,
                  ZoneCells& cells) {
  numberCells(cells);
  if (zone.layout != ZoneLayout::Strand) faceOfGrid(cells, keepsGrids(zone.layout));
  findPieces(parts, map, cells);
  if (cells.rows > 1) tablePlaces(cells);
  measurePlaces(zone, cells);
}

void measureMoved(const Zone& zone, const std::vector<PartPixels>& parts, const PixelMap& map,
                  const PixelMap& before, ZoneCells& cells) {
  if (walkOf(parts, map) != walkOf(parts, before)) findPieces(parts, map, cells);
  measurePlaces(zone, cells);
}

}  // namespace chispa
