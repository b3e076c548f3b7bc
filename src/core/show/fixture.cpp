// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/show/fixture.h"

#include <algorithm>
#include <limits>
#include <numeric>

namespace chispa {
namespace {

template <class T>
std::vector<T> inDataOrder(std::vector<T> alongShape, bool reversed) {
  if (reversed) std::reverse(alongShape.begin(), alongShape.end());
  return alongShape;
}

}  // namespace

int pixelCount(const Segment& segment) {
  return pixelCount(segment.shape);
}

int pixelCount(const Fixture& fixture) {
  return firstPixelOf(fixture, fixture.segments.size());
}

int firstPixelOf(const Fixture& fixture, std::size_t index) {
  std::int64_t first = 0;
  for (std::size_t i = 0; i < index; ++i) first += pixelCount(fixture.segments[i]);
  return static_cast<int>(std::min<std::int64_t>(first, std::numeric_limits<int>::max()));
}

std::size_t segmentOf(const Fixture& fixture, int pixel) {
  std::size_t index = 0;
  while (index + 1 < fixture.segments.size() && pixel >= pixelCount(fixture.segments[index]))
    pixel -= pixelCount(fixture.segments[index++]);
  return index;
}

std::vector<Vec3> positions(const Segment& segment) {
  std::vector<Vec3> all = inDataOrder(localPositions(segment.shape), segment.reversed);
  const Placer place(segment.place);
  for (Vec3& point : all) point = place(point);
  return all;
}

std::vector<Vec3> positions(const Fixture& fixture) {
  std::vector<Vec3> all;
  all.reserve(static_cast<std::size_t>(pixelCount(fixture)));
  const Placer place(fixture.place);
  for (const Segment& segment : fixture.segments)
    for (const Vec3& local : positions(segment)) all.push_back(place(local));
  return all;
}

std::vector<GridCell> matrixCells(const Segment& segment) {
  return inDataOrder(matrixCells(segment.shape), segment.reversed);
}

double stripLength_m(const Fixture& fixture) {
  return std::accumulate(
      fixture.segments.begin(), fixture.segments.end(), 0.0,
      [](double sum, const Segment& segment) { return sum + stripLength_m(segment.shape); });
}

}  // namespace chispa
