// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edit/foundplaces.h"

#include <map>

#include "core/edit/planedits.h"

namespace chispa {
namespace {

/// `world` in the frame of a thing placed so.
Vec3 inFrame(const Placement& place, Vec3 world) {
  const Axes axes = axesOf(place);
  const Vec3 off = world - place.position_m;
  return {dot(off, axes.x), dot(off, axes.y), dot(off, axes.z)};
}

}  // namespace

void setPlaces(Show& show, const std::vector<FoundPlace>& places) {
  std::map<FixtureId, std::map<int, Vec3>> byFixture;
  for (const FoundPlace& found : places) byFixture[found.fixture][found.pixel] = found.place_m;
  for (const auto& [id, found] : byFixture)
    changeFixture(show, id, [&found = found](Fixture& fixture) {
      int first = 0;
      for (Segment& segment : fixture.segments) {
        const int count = pixelCount(segment);
        const bool isHit = found.lower_bound(first) != found.lower_bound(first + count);
        if (isHit) {
          // In the fixture's own frame, and in the order of the data.
          std::vector<Vec3> points = positions(segment);
          for (auto at = found.lower_bound(first); at != found.end() && at->first < first + count; ++at)
            points[static_cast<std::size_t>(at->first - first)] = inFrame(fixture.place, at->second);
          segment.shape = PointsShape{std::move(points)};
          segment.place = {};
          segment.reversed = false;
        }
        first += count;
      }
    });
}

}  // namespace chispa
