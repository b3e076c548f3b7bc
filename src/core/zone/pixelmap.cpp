// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/zone/pixelmap.h"

namespace chispa {

std::optional<PixelMap::Range> PixelMap::rangeOf(FixtureId id) const {
  const auto found = ranges.find(id);
  if (found == ranges.end()) return std::nullopt;
  return found->second;
}

PixelMap mapPixels(const Show& show) {
  PixelMap map;
  map.positions.reserve(static_cast<std::size_t>(pixelCount(show)));
  for (const auto& fixture : show.fixtures) {
    const auto points = positions(*fixture);
    map.ranges[fixture->id] = {map.count(), static_cast<int>(points.size())};
    map.positions.insert(map.positions.end(), points.begin(), points.end());
  }
  return map;
}

}  // namespace chispa
