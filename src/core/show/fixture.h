// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <string>
#include <vector>

#include "core/base/id.h"
#include "core/shape/placement.h"
#include "core/shape/shape.h"

namespace chispa {

/// A named run of consecutive pixels of a fixture with a shape of its own.
struct Segment {
  std::string name;
  Shape shape;
  /// Its frame within the fixture's.
  Placement place;

  bool operator==(const Segment&) const = default;
};

/// One physical thing the maker built; its pixels are numbered in data order from 0.
struct Fixture {
  FixtureId id;
  std::string name;
  StripTypeId stripType;
  Placement place;
  std::vector<Segment> segments;

  bool operator==(const Fixture&) const = default;
};

int pixelCount(const Fixture& fixture);

/// Number of the fixture's first pixel in segment `index`.
int firstPixelOf(const Fixture& fixture, std::size_t index);

/// Every pixel's place in the world, in metres and data order.
std::vector<Vec3> positions(const Fixture& fixture);

double stripLength_m(const Fixture& fixture);

}  // namespace chispa
