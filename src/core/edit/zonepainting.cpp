// SPDX-License-Identifier: GPL-3.0-or-later
// Zones that are painted on the plan pixel by pixel.
#include <algorithm>
#include <map>
#include <set>

#include "core/edit/planedits.h"
#include "core/edit/zoneedits.h"
#include "core/zone/cells.h"
#include "core/zone/partpixels.h"

namespace chispa {
namespace {

/// Pixels by the fixture they belong to, each sorted.
std::vector<std::pair<FixtureId, std::vector<int>>> byFixture(const Show& show, const PixelMap& map,
                                                              std::vector<std::uint32_t> pixels) {
  std::sort(pixels.begin(), pixels.end());
  pixels.erase(std::unique(pixels.begin(), pixels.end()), pixels.end());
  std::vector<std::pair<FixtureId, std::vector<int>>> sorted;
  for (const ZonePart& part : partsOf(show, map, pixels))
    sorted.emplace_back(part.fixture, pixelsOf(*find(show.fixtures, part.fixture), part));
  return sorted;
}

/// Adds pixels to those of a part, in data order if that is what they were in.
std::vector<int> grown(std::vector<int> had, const std::vector<int>& more) {
  const bool inDataOrder = std::is_sorted(had.begin(), had.end());
  had.insert(had.end(), more.begin(), more.end());
  if (inDataOrder) std::sort(had.begin(), had.end());
  return had;
}

}  // namespace

void paintZone(Show& show, const PixelMap& map, ZoneId id, const std::vector<std::uint32_t>& pixels) {
  changeItem(show.zones, id, [&](Zone& zone) {
    for (const auto& owned : byFixture(show, map, pixels)) {
      const FixtureId fixtureId = owned.first;
      std::vector<int> numbers = owned.second;
      const Fixture& fixture = *find(show.fixtures, fixtureId);
      std::set<int> had;
      ZonePart* last = nullptr;
      for (ZonePart& part : zone.parts) {
        if (part.fixture != fixtureId) continue;
        const auto taken = pixelsOf(fixture, part);
        had.insert(taken.begin(), taken.end());
        last = &part;
      }
      std::erase_if(numbers, [&](int n) { return had.contains(n); });
      if (numbers.empty()) continue;
      if (last && zone.pixelsPerCell > 0 && !zone.playsAsOne)
        *last = partOf(fixture, grown(pixelsOf(fixture, *last), numbers));
      else
        zone.parts.push_back(partOf(fixture, numbers));
    }
  });
}

void eraseFromZone(Show& show, const PixelMap& map, ZoneId id, const std::vector<std::uint32_t>& pixels) {
  changeItem(show.zones, id, [&](Zone& zone) {
    for (const auto& owned : byFixture(show, map, pixels)) {
      const FixtureId fixtureId = owned.first;
      const std::vector<int>& numbers = owned.second;
      const Fixture& fixture = *find(show.fixtures, fixtureId);
      std::vector<ZonePart> left;
      for (const ZonePart& part : zone.parts) {
        if (part.fixture != fixtureId) {
          left.push_back(part);
          continue;
        }
        auto kept = pixelsOf(fixture, part);
        const auto before = kept.size();
        std::erase_if(kept, [&](int n) { return std::binary_search(numbers.begin(), numbers.end(), n); });
        if (kept.size() == before)
          left.push_back(part);
        else if (!kept.empty())
          left.push_back(partOf(fixture, kept));
      }
      zone.parts = std::move(left);
    }
  });
}

}  // namespace chispa
