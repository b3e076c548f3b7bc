// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/zone/drafts.h"

#include <cmath>
#include <numeric>

#include "core/show/limits.h"

namespace chispa {
namespace {

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

}  // namespace

Vec3 middleOf(const PixelMap& map, std::span<const std::uint32_t> pixels) {
  if (pixels.size() == 1) return map.positions[pixels.front()];
  Vec3 sum;
  for (const std::uint32_t pixel : pixels) sum = sum + map.positions[pixel];
  return pixels.empty() ? sum : sum * (1.0 / static_cast<double>(pixels.size()));
}

Drafts stripOf(const PartPixels& part, int perCell, bool upright) {
  Drafts strip;
  const std::size_t step = perCell > 0 ? static_cast<std::size_t>(perCell) : part.pixels.size();
  strip.reserve(part.pixels.size() / std::max<std::size_t>(1, step) + 1, part.pixels.size());
  int index = 0;
  for (std::size_t at = 0; at < part.pixels.size(); at += step, ++index) {
    const auto pixels = std::span(part.pixels).subspan(at, std::min(step, part.pixels.size() - at));
    strip.add(upright ? 0 : index, upright ? index : 0, pixels);
  }
  return strip;
}

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

Drafts laidTogether(const Zone& zone, const std::vector<Drafts>& parts) {
  Drafts all;
  int longest = 0;
  std::size_t cellCount = 0, pixelCount = 0;
  for (const Drafts& part : parts) {
    longest = std::max(longest, part.columns);
    cellCount += part.cells.size();
    pixelCount += part.pixels.size();
  }
  all.reserve(cellCount, pixelCount);
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

}  // namespace chispa
