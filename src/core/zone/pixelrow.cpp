// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/zone/pixelrow.h"

#include <numeric>

#include "core/zone/cells.h"

namespace chispa {

std::vector<std::uint32_t> pixelsOf(const Show& show, const PixelMap& map, const PixelRow& row) {
  if (const auto* id = std::get_if<FixtureId>(&row)) {
    const PixelMap::Range range = map.rangeOf(*id).value_or(PixelMap::Range{});
    std::vector<std::uint32_t> pixels(static_cast<std::size_t>(range.count));
    std::iota(pixels.begin(), pixels.end(), static_cast<std::uint32_t>(range.first));
    return pixels;
  }
  const Zone* zone = find(show.zones, std::get<ZoneId>(row));
  return zone ? cellsOf(show, map, *zone).pixels : std::vector<std::uint32_t>();
}

std::string nameOf(const Show& show, const PixelRow& row) {
  if (const auto* id = std::get_if<FixtureId>(&row)) {
    const Fixture* fixture = find(show.fixtures, *id);
    return fixture ? fixture->name : std::string();
  }
  const Zone* zone = find(show.zones, std::get<ZoneId>(row));
  return zone ? zone->name : std::string();
}

}  // namespace chispa
