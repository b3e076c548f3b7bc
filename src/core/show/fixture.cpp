// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/show/fixture.h"

#include <numeric>

namespace chispa {

int pixelCount(const Fixture& fixture) {
  return firstPixelOf(fixture, fixture.segments.size());
}

int firstPixelOf(const Fixture& fixture, std::size_t index) {
  int first = 0;
  for (std::size_t i = 0; i < index; ++i) first += pixelCount(fixture.segments[i].shape);
  return first;
}

std::vector<Vec3> positions(const Fixture& fixture) {
  std::vector<Vec3> all;
  all.reserve(static_cast<std::size_t>(pixelCount(fixture)));
  for (const Segment& segment : fixture.segments)
    for (const Vec3& local : localPositions(segment.shape))
      all.push_back(placed(fixture.place, placed(segment.place, local)));
  return all;
}

double stripLength_m(const Fixture& fixture) {
  return std::accumulate(
      fixture.segments.begin(), fixture.segments.end(), 0.0,
      [](double sum, const Segment& segment) { return sum + stripLength_m(segment.shape); });
}

}  // namespace chispa
