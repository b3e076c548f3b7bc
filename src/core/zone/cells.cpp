// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/zone/cells.h"

#include <algorithm>
#include <cmath>
#include <functional>
#include <limits>
#include <numeric>

#include "core/show/limits.h"
#include "core/zone/direction.h"
#include "core/zone/partpixels.h"

namespace chispa {
namespace {

/// A cell on its way into a zone: where it stands, and which stretch of the drawn-up pixels it has.
struct Draft {
  int column = 0;
  int row = 0;
  std::size_t first = 0;
  std::size_t count = 0;
};

/// Cells of one part, or of all that are laid together.
struct Drafts {
  std::vector<Draft> cells;
  std::vector<std::uint32_t> pixels;
  /// How many columns it takes beside others; more than its cells reach where it is part of a matrix.
  int columns = 0;

  void add(int column, int row, std::span<const std::uint32_t> taken) {
    cells.push_back({column, row, pixels.size(), taken.size()});
    pixels.insert(pixels.end(), taken.begin(), taken.end());
    columns = std::max(columns, column + 1);
  }
  /// Moves all so that the lowest row and column are 0.
  void settle() {
    int lowColumn = std::numeric_limits<int>::max();
    int lowRow = lowColumn;
    for (const Draft& cell : cells) {
      lowColumn = std::min(lowColumn, cell.column);
      lowRow = std::min(lowRow, cell.row);
    }
    for (Draft& cell : cells) {
      cell.column -= lowColumn;
      cell.row -= lowRow;
    }
  }
  std::span<const std::uint32_t> pixelsOf(const Draft& cell) const {
    return std::span(pixels).subspan(cell.first, cell.count);
  }
};

/// Cells that stand in one place become one; it plays when the first of them would.
Drafts merged(const Drafts& all) {
  std::vector<std::size_t> order(all.cells.size());
  std::iota(order.begin(), order.end(), 0u);
  const auto place = [&](std::size_t i) { return std::pair(all.cells[i].column, all.cells[i].row); };
  std::stable_sort(order.begin(), order.end(),
                   [&](std::size_t a, std::size_t b) { return place(a) < place(b); });
  std::vector<std::vector<std::size_t>> groups;
  for (const std::size_t i : order) {
    if (groups.empty() || place(groups.back().front()) != place(i)) groups.emplace_back();
    groups.back().push_back(i);
  }
  std::sort(groups.begin(), groups.end(), [](const auto& a, const auto& b) { return a.front() < b.front(); });
  Drafts out;
  for (const auto& group : groups) {
    std::vector<std::uint32_t> pixels;
    for (const std::size_t i : group) {
      const auto more = all.pixelsOf(all.cells[i]);
      pixels.insert(pixels.end(), more.begin(), more.end());
    }
    out.add(all.cells[group.front()].column, all.cells[group.front()].row, pixels);
  }
  return out;
}

/// A part as a strip of cells: (0, 0), (1, 0) … in columns, or in rows if it stands upright.
Drafts stripOf(const PartPixels& part, int perCell, bool upright) {
  Drafts strip;
  const std::size_t step = perCell > 0 ? static_cast<std::size_t>(perCell) : part.pixels.size();
  int index = 0;
  for (std::size_t at = 0; at < part.pixels.size(); at += step, ++index) {
    const auto pixels = std::span(part.pixels).subspan(at, std::min(step, part.pixels.size() - at));
    strip.add(upright ? 0 : index, upright ? index : 0, pixels);
  }
  return strip;
}

/// A part as the grid it is; a part that is no grid becomes a row.
Drafts gridOf(const PartPixels& part, int perCell) {
  if (part.cells.empty() || perCell == 0) return stripOf(part, perCell, false);
  Drafts grid;
  for (std::size_t i = 0; i < part.pixels.size(); ++i)
    grid.add(part.cells[i].column / perCell, part.cells[i].row / perCell,
             std::span(part.pixels).subspan(i, 1));
  if (perCell > 1) grid = merged(grid);
  // What is taken of panels side by side keeps its place in them.
  grid.columns = (part.columns + perCell - 1) / perCell;
  return grid;
}

/// Where pixels lie in the middle.
template <class Pixels>
Vec3 middleOf(const PixelMap& map, const Pixels& pixels) {
  Vec3 sum;
  for (const std::uint32_t pixel : pixels) sum = sum + map.positions[pixel];
  return pixels.empty() ? sum : sum * (1.0 / static_cast<double>(pixels.size()));
}

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

/// Lays parts one after the other, or on one another.
Drafts laidTogether(const Zone& zone, const std::vector<Drafts>& parts) {
  Drafts all;
  int longest = 0;
  for (const Drafts& part : parts) longest = std::max(longest, part.columns);
  int next = 0;
  for (const Drafts& part : parts) {
    const int width = part.columns;
    for (const Draft& cell : part.cells) {
      // Shorter parts that play as one are spread over the longest.
      const int column = !zone.playsAsOne                    ? next + cell.column
                         : zone.layout == ZoneLayout::Strand ? (2 * cell.column + 1) * longest / (2 * width)
                                                             : cell.column;
      all.add(column, cell.row, part.pixelsOf(cell));
    }
    next += width;
  }
  if (zone.layout == ZoneLayout::SideBySide) all.settle();
  return zone.playsAsOne ? merged(all) : all;
}

/// Panels in rows, the first on the upper left: as wide and as high as the largest of their column and row.
Drafts joinedInRows(const std::vector<Drafts>& panels, int across) {
  const auto perRow = static_cast<std::size_t>(across);
  const std::size_t bands = (panels.size() + perRow - 1) / perRow;
  std::vector<int> wide(perRow, 0), high(bands, 0);
  for (std::size_t i = 0; i < panels.size(); ++i) {
    wide[i % perRow] = std::max(wide[i % perRow], panels[i].columns);
    for (const Draft& cell : panels[i].cells) high[i / perRow] = std::max(high[i / perRow], cell.row + 1);
  }
  Drafts all;
  for (std::size_t i = 0; i < panels.size(); ++i) {
    const int left = std::accumulate(wide.begin(), wide.begin() + static_cast<std::ptrdiff_t>(i % perRow), 0);
    // Rows count upward: the bands below it.
    const int foot =
        std::accumulate(high.begin() + static_cast<std::ptrdiff_t>(i / perRow) + 1, high.end(), 0);
    for (const Draft& cell : panels[i].cells)
      all.add(left + cell.column, foot + cell.row, panels[i].pixelsOf(cell));
  }
  return all;
}

/// The two directions of the world in which panels that hang somewhere are seen as a picture: from the front,
/// from above where they lie flat, from the side where they stand along y.
struct Wall {
  double Vec3::*across;
  double Vec3::*upward;
};
Wall wallOf(const std::vector<Vec3>& places) {
  Vec3 low = places.front(), high = places.front();
  for (const Vec3& p : places)
    for (double Vec3::*axis : {&Vec3::x, &Vec3::y, &Vec3::z}) {
      low.*axis = std::min(low.*axis, p.*axis);
      high.*axis = std::max(high.*axis, p.*axis);
    }
  const Vec3 size = high - low;
  if (size.z <= size.x && size.z <= size.y) return {&Vec3::x, &Vec3::y};
  return size.x < size.y ? Wall{&Vec3::y, &Vec3::z} : Wall{&Vec3::x, &Vec3::z};
}

/// Numbers of the steps of `pitch` at which `places` lie, from 0; without `countsGaps` steps that nothing
/// lies on are left out.
std::vector<int> stepsOf(const std::vector<double>& places, double pitch, bool countsGaps) {
  const double low = *std::min_element(places.begin(), places.end());
  std::vector<std::int64_t> numbers;
  for (const double place : places) numbers.push_back(std::llround((place - low) / pitch));
  std::vector<std::int64_t> taken = numbers;
  std::sort(taken.begin(), taken.end());
  taken.erase(std::unique(taken.begin(), taken.end()), taken.end());
  std::vector<int> steps;
  for (const std::int64_t number : numbers)
    steps.push_back(
        countsGaps && taken.back() < limits::kMaxPixelsOfSegment
            ? static_cast<int>(number)
            : static_cast<int>(std::lower_bound(taken.begin(), taken.end(), number) - taken.begin()));
  return steps;
}

/// Every cell where it hangs: the step is the least distance between neighbours on the data line.
Drafts joinedAsTheyHang(const Drafts& cells, const PixelMap& map, bool countsGaps) {
  std::vector<Vec3> places;
  for (const Draft& cell : cells.cells) places.push_back(middleOf(map, cells.pixelsOf(cell)));
  constexpr double kLeast_m = 1e-4;
  double pitch = 0;
  for (std::size_t i = 1; i < places.size(); ++i)
    if (const double away = length(places[i] - places[i - 1]); away > kLeast_m)
      pitch = pitch > 0 ? std::min(pitch, away) : away;
  if (pitch <= 0) return cells;
  const Wall wall = wallOf(places);
  std::vector<double> across, upward;
  for (const Vec3& p : places) {
    across.push_back(p.*wall.across);
    upward.push_back(p.*wall.upward);
  }
  const auto columns = stepsOf(across, pitch, countsGaps);
  const auto rows = stepsOf(upward, pitch, countsGaps);
  const auto most = [](const std::vector<int>& steps) {
    return static_cast<std::int64_t>(*std::max_element(steps.begin(), steps.end())) + 1;
  };
  if (most(columns) * most(rows) > limits::kMaxPlacesOfZone) return cells;
  Drafts all;
  for (std::size_t i = 0; i < cells.cells.size(); ++i)
    all.add(columns[i], rows[i], cells.pixelsOf(cells.cells[i]));
  return merged(all);
}

bool isPlain(const ZoneCells& cells) {
  if (cells.pixels.empty() || cells.pixels.size() != cells.column.size()) return false;
  for (std::size_t i = 0; i < cells.pixels.size(); ++i)
    if (cells.pixels[i] != cells.pixels[0] + i || cells.firstPixel[i] != i) return false;
  return true;
}

void write(const Drafts& drafts, const PixelMap& map, ZoneCells& cells) {
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

void placeCells(ZoneCells& cells) {
  const auto n = cells.position_m.size();
  double low = std::numeric_limits<double>::max();
  double high = -low;
  double farthest = 0;
  for (const Vec3& p : cells.position_m) {
    low = std::min(low, p.z);
    high = std::max(high, p.z);
    farthest = std::max(farthest, cells.frame.radius_m(p));
  }
  const auto middle = [](std::size_t index, std::size_t count) {
    return (static_cast<double>(index) + 0.5) / static_cast<double>(std::max<std::size_t>(1, count));
  };
  for (auto& places : cells.places) places.reserve(n);
  const auto put = [&](Axis axis, double place) {
    cells.places[static_cast<std::size_t>(axis)].push_back(static_cast<float>(place));
  };
  for (std::size_t i = 0; i < n; ++i) {
    const Vec3& p = cells.position_m[i];
    cells.indexes.push_back(static_cast<float>(i));
    cells.columnNumbers.push_back(static_cast<float>(cells.column[i]));
    cells.rowNumbers.push_back(static_cast<float>(cells.row[i]));
    put(Axis::Along, middle(i, n));
    put(Axis::Columns,
        middle(static_cast<std::size_t>(cells.column[i]), static_cast<std::size_t>(cells.columns)));
    put(Axis::Rows, middle(static_cast<std::size_t>(cells.row[i]), static_cast<std::size_t>(cells.rows)));
    put(Axis::Height, high - low > 1e-9 ? (p.z - low) / (high - low) : 0.5);
    put(Axis::Around, cells.frame.angle_deg(p) / 360);
    put(Axis::Outward, farthest > 0 ? cells.frame.radius_m(p) / farthest : 0);
  }
}

/// Face of a matrix (square cells), or of strings side by side (stretched to a square).
void faceOfGrid(ZoneCells& cells, bool isMatrix) {
  const double across = isMatrix ? std::max(cells.columns, cells.rows) : cells.columns;
  const double upward = isMatrix ? across : cells.rows;
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
  std::vector<Vec3> middles;
  for (std::size_t p = parts.size(); p-- > 0;)
    for (std::size_t i = 0; i < parts[p].pixels.size(); ++i)
      if (const std::uint32_t pixel = parts[p].pixels[i]; pixel >= *low && pixel <= *high)
        placeOf[pixel - *low] = {static_cast<std::uint32_t>(std::min<std::size_t>(p, 0xfffe)),
                                 (static_cast<float>(i) + 0.5f) / static_cast<float>(parts[p].pixels.size())};
  for (const PartPixels& part : parts) middles.push_back(middleOf(map, part.pixels));
  const auto walk = walkOf(middles);
  for (int cell = 0; cell < cells.count(); ++cell) {
    const Place& place = placeOf[cells.pixelsOf(cell).front() - *low];
    cells.piece.push_back(place.part == kNone ? std::uint16_t{0} : walk[place.part]);
    cells.alongPiece.push_back(place.along);
  }
}

/// Once round at the mean radius.
double roundOf(const ZoneCells& cells) {
  double sum = 0;
  for (const Vec3& p : cells.position_m) sum += cells.frame.radius_m(p);
  return 2 * 3.14159265358979 * sum / std::max<double>(1, static_cast<double>(cells.count()));
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
  double farthest = 0;
  for (std::size_t i = 0; i < cells.position_m.size(); ++i) {
    const Vec3& p = cells.position_m[i];
    low = {std::min(low.x, p.x), std::min(low.y, p.y), std::min(low.z, p.z)};
    high = {std::max(high.x, p.x), std::max(high.y, p.y), std::max(high.z, p.z)};
    farthest = std::max(farthest, cells.frame.radius_m(p));
    if (i == 0 || cells.piece[i] != cells.piece[i - 1]) continue;
    along += length(p - cells.position_m[i - 1]);
    ++steps;
  }
  if (cells.count() > 0) cells.size_m = high - low;
  const auto set = [&cells](Axis axis, double metres) {
    cells.length_m[static_cast<std::size_t>(axis)] = metres;
  };
  set(Axis::Along, steps > 0 ? along * cells.count() / steps : 0);
  set(Axis::Around, roundOf(cells));
  set(Axis::Outward, farthest);
  set(Axis::Height, cells.size_m.z);
  if (cells.rows <= 1) return;
  const int row = cells.rows / 2, column = cells.columns / 2;
  set(Axis::Columns, polylineOf(cells, cells.columns, [&](int n) { return cells.cellAt(n, row); }));
  set(Axis::Rows, polylineOf(cells, cells.rows, [&](int n) { return cells.cellAt(column, n); }));
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

ZoneCells cellsOf(const Show& show, const PixelMap& map, const Zone& zone) {
  std::vector<PartPixels> parts;
  std::vector<Vec3> points;
  for (const ZonePart& part : zone.parts) {
    PartPixels taken = pixelsOfPart(show, map, part);
    if (taken.pixels.empty()) continue;
    for (const std::uint32_t pixel : taken.pixels) points.push_back(map.positions[pixel]);
    parts.push_back(std::move(taken));
  }
  ZoneCells cells;
  cells.frame = frameOf(points, zone.centre_m);
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
  placeCells(cells);
  if (zone.layout == ZoneLayout::Strand)
    faceOfStrand(cells);
  else
    faceOfGrid(cells, keepsGrids(zone.layout));
  measureFace(cells);
  findPieces(parts, map, cells);
  if (cells.rows > 1) tablePlaces(cells);
  measureLengths(cells);
  return cells;
}

}  // namespace chispa
