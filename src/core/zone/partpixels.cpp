// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/zone/partpixels.h"

#include <algorithm>
#include <numeric>

namespace chispa {
namespace {

/// The stretch of a fixture that a part speaks of, and the segment it lies in if that is only one.
struct Stretch {
  int first = 0;
  int count = 0;
  const Segment* segment = nullptr;
};

Stretch stretchOf(const Fixture& fixture, const ZonePart& part) {
  const auto segments = static_cast<int>(fixture.segments.size());
  if (!part.segment) return {0, pixelCount(fixture), segments == 1 ? &fixture.segments[0] : nullptr};
  if (*part.segment < 0 || *part.segment >= segments) return {};
  const auto index = static_cast<std::size_t>(*part.segment);
  return {firstPixelOf(fixture, index), pixelCount(fixture.segments[index]), &fixture.segments[index]};
}

}  // namespace

ZonePart partOf(const Fixture& fixture, const std::vector<int>& numbers) {
  const auto isRun = [&](int first, int count) {
    if (std::ssize(numbers) != count) return 0;
    const int step = numbers.front() == first ? 1 : -1;
    for (int i = 0; i < count; ++i)
      if (numbers[static_cast<std::size_t>(i)] != (step > 0 ? first + i : first + count - 1 - i)) return 0;
    return step;
  };
  if (const int way = isRun(0, pixelCount(fixture))) return {fixture.id, std::nullopt, way < 0};
  if (fixture.segments.size() > 1) {
    const std::size_t index = segmentOf(fixture, numbers.front());
    const int first = firstPixelOf(fixture, index);
    const int count = pixelCount(fixture.segments[index]);
    if (const int way = isRun(first, count)) return {fixture.id, static_cast<int>(index), way < 0};
    const bool isWithin =
        std::all_of(numbers.begin(), numbers.end(), [&](int n) { return n >= first && n < first + count; });
    if (isWithin) {
      std::vector<int> within = numbers;
      for (int& n : within) n -= first;
      return {fixture.id, static_cast<int>(index), false, runsOf(within)};
    }
  }
  return {fixture.id, std::nullopt, false, runsOf(numbers)};
}

std::vector<int> pixelsOf(const Fixture& fixture, const ZonePart& part) {
  const Stretch stretch = stretchOf(fixture, part);
  std::vector<int> numbers(static_cast<std::size_t>(stretch.count));
  std::iota(numbers.begin(), numbers.end(), 0);
  if (!part.runs.empty()) {
    numbers = numbersOf(part.runs);
    std::erase_if(numbers, [&](int n) { return n < 0 || n >= stretch.count; });
  }
  if (part.reversed) std::reverse(numbers.begin(), numbers.end());
  for (int& n : numbers) n += stretch.first;
  return numbers;
}

PartPixels pixelsOfPart(const Show& show, const PixelMap& map, const ZonePart& part) {
  PartPixels taken;
  const Fixture* fixture = find(show.fixtures, part.fixture);
  const auto range = map.rangeOf(part.fixture);
  if (!fixture || !range) return taken;
  const Stretch stretch = stretchOf(*fixture, part);
  const std::vector<int> numbers = pixelsOf(*fixture, part);
  taken.pixels.reserve(numbers.size());
  for (const int n : numbers) taken.pixels.push_back(static_cast<std::uint32_t>(range->first + n));
  if (numbers.empty() || !stretch.segment || !isMatrix(stretch.segment->shape)) return taken;
  const auto all = matrixCells(*stretch.segment);
  for (const int n : numbers) taken.cells.push_back(all[static_cast<std::size_t>(n - stretch.first)]);
  for (const GridCell& cell : all) taken.columns = std::max(taken.columns, cell.column + 1);
  return taken;
}

std::vector<ZonePart> partsOf(const Show& show, const PixelMap& map, std::span<const std::uint32_t> pixels) {
  std::vector<ZonePart> parts;
  std::vector<const Fixture*> owners;
  std::vector<int> firsts;
  for (const auto& fixture : show.fixtures) {
    owners.push_back(fixture.get());
    firsts.push_back(map.rangeOf(fixture->id)->first);
  }
  const auto ownerOf = [&](std::uint32_t pixel) {
    return static_cast<std::size_t>(std::upper_bound(firsts.begin(), firsts.end(), static_cast<int>(pixel)) -
                                    firsts.begin()) -
           1;
  };
  for (std::size_t at = 0; at < pixels.size();) {
    const std::size_t owner = ownerOf(pixels[at]);
    std::vector<int> numbers;
    for (; at < pixels.size() && ownerOf(pixels[at]) == owner; ++at)
      numbers.push_back(static_cast<int>(pixels[at]) - firsts[owner]);
    parts.push_back(partOf(*owners[owner], numbers));
  }
  return parts;
}

std::vector<PixelRun> runsOf(std::span<const int> numbers) {
  std::vector<PixelRun> runs;
  for (const int n : numbers) {
    PixelRun* last = runs.empty() ? nullptr : &runs.back();
    if (last && last->count == 1 && n != last->first)
      last->step = n - last->first;
    else if (!last || last->first + last->count * last->step != n) {
      runs.push_back({n, 1, 1});
      continue;
    }
    ++last->count;
  }
  return runs;
}

std::vector<int> numbersOf(const std::vector<PixelRun>& runs) {
  std::vector<int> numbers;
  for (const PixelRun& run : runs)
    for (int i = 0; i < run.count; ++i) numbers.push_back(run.first + i * run.step);
  return numbers;
}

}  // namespace chispa
