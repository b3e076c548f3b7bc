// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <optional>
#include <string>
#include <vector>

#include "core/base/id.h"
#include "core/shape/placement.h"
#include "core/shape/shape.h"
#include "core/show/response.h"

namespace chispa {

/// A named run of consecutive pixels of a fixture with a shape of its own.
struct Segment {
  std::string name;
  Shape shape;
  /// Its frame within the fixture's.
  Placement place;
  /// The data comes in at the shape's other end.
  bool reversed = false;

  bool operator==(const Segment&) const = default;
};

/// One physical thing the maker built; its pixels are numbered in data order from 0.
struct Fixture {
  FixtureId id;
  std::string name;
  StripTypeId stripType;
  Placement place;
  std::vector<Segment> segments;
  /// Fixtures with the same name of a group are selected and moved together; empty for those that stand
  /// alone.
  std::string group = {};
  /// Its own dimming curve, where it is not its strip type's.
  std::optional<Response> response = {};

  bool operator==(const Fixture&) const = default;
};

int pixelCount(const Segment& segment);
int pixelCount(const Fixture& fixture);

/// Number of the fixture's first pixel in segment `index`.
int firstPixelOf(const Fixture& fixture, std::size_t index);
/// The segment that has pixel `pixel` of the fixture; the last one for a pixel beyond the end.
std::size_t segmentOf(const Fixture& fixture, int pixel);

/// Every pixel's place in the fixture's frame, in metres and data order.
std::vector<Vec3> positions(const Segment& segment);
/// Every pixel's place in the world, in metres and data order.
std::vector<Vec3> positions(const Fixture& fixture);
/// Row and column of every pixel of a matrix in data order; empty if the segment is none.
std::vector<GridCell> matrixCells(const Segment& segment);

double stripLength_m(const Fixture& fixture);

}  // namespace chispa
