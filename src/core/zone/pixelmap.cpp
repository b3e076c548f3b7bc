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

PixelMap mapPixels(const Show& show) {
  PixelMap map;
  map.positions.reserve(static_cast<std::size_t>(pixelCount(show)));
  for (const auto& fixture : show.fixtures) {
    const auto points = positions(*fixture);
    map.ranges[fixture->id] = {map.count(), static_cast<int>(points.size())};
    map.positions.insert(map.positions.end(), points.begin(), points.end());
    map.lampSize.insert(map.lampSize.end(), points.size(), lampSizeOf(stripTypeOf(show, *fixture)));
  }
  return map;
}

}  // namespace chispa
