// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/zone/pixelmap.h"

#include <algorithm>
#include <cmath>

namespace chispa {

std::optional<PixelMap::Range> PixelMap::rangeOf(FixtureId id) const {
  const auto found = ranges.find(id);
  if (found == ranges.end()) return std::nullopt;
  return found->second;
}

namespace {

/// An area in proportion to the current, within what still looks like a lamp.
float lampSizeOf(const StripType& strip) {
  constexpr double kPlain_ma = 12;
  return static_cast<float>(std::clamp(std::sqrt(strip.channel_ma / kPlain_ma), 0.6, 7.0));
}

}  // namespace

std::unordered_map<FixtureId, PixelMap::Range> pixelRanges(const Show& show) {
  std::unordered_map<FixtureId, PixelMap::Range> ranges;
  int next = 0;
  for (const auto& fixture : show.fixtures) {
    const int count = pixelCount(*fixture);
    // The first of two with one id is the one that find() gives.
    ranges.try_emplace(fixture->id, PixelMap::Range{next, count});
    next += count;
  }
  return ranges;
}

PixelMap mapPixels(const Show& show) {
  PixelMap map;
  map.positions.reserve(static_cast<std::size_t>(pixelCount(show)));
  map.lampSize.reserve(static_cast<std::size_t>(pixelCount(show)));
  map.ranges = pixelRanges(show);
  for (const auto& fixture : show.fixtures) {
    const auto points = positions(*fixture);
    map.positions.insert(map.positions.end(), points.begin(), points.end());
    map.lampSize.insert(map.lampSize.end(), points.size(), lampSizeOf(stripTypeOf(show, *fixture)));
  }
  return map;
}

std::shared_ptr<const PixelMap> remapPixels(const Show& show, const Show& before,
                                            const std::shared_ptr<const PixelMap>& map) {
  if (show.stripTypes != before.stripTypes) return nullptr;
  const bool isNumberedAlike =
      std::equal(show.fixtures.begin(), show.fixtures.end(), before.fixtures.begin(), before.fixtures.end(),
                 [](const auto& now, const auto& then) {
                   return now == then || (now->id == then->id && now->stripType == then->stripType &&
                                          pixelCount(*now) == pixelCount(*then));
                 });
  if (!isNumberedAlike) return nullptr;
  if (show.fixtures == before.fixtures) return map;
  auto moved = std::make_shared<PixelMap>(*map);
  auto place = moved->positions.begin();
  for (std::size_t i = 0; i < show.fixtures.size(); ++i) {
    if (show.fixtures[i] == before.fixtures[i]) {
      place += pixelCount(*show.fixtures[i]);
      continue;
    }
    const auto points = positions(*show.fixtures[i]);
    place = std::copy(points.begin(), points.end(), place);
  }
  return moved;
}

}  // namespace chispa
