// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <cstdint>
#include <span>
#include <vector>

#include "core/show/show.h"
#include "core/zone/pixelmap.h"

namespace chispa {

/// What one part of a zone takes.
struct PartPixels {
  /// Numbers of PixelMap, in playing order.
  std::vector<std::uint32_t> pixels;
  /// Row and column of each in the matrix that all lie in; empty if there is none.
  std::vector<GridCell> cells;
  /// Columns of that whole matrix.
  int columns = 0;
};

/// Resolves a part against the fixtures of `show`; empty if its fixture or segment is gone.
PartPixels pixelsOfPart(const Show& show, const PixelMap& map, const ZonePart& part);

/// The part that takes just `pixels` of a fixture, in that order: the whole or a segment of it where it is
/// that, so that the zone follows when its count changes; runs elsewhere. At least one pixel.
ZonePart partOf(const Fixture& fixture, const std::vector<int>& pixels);
/// The pixels of the fixture that a part takes, in playing order; none if its segment is gone.
std::vector<int> pixelsOf(const Fixture& fixture, const ZonePart& part);

/// The parts that take just `pixels` (numbers of PixelMap), in that order.
std::vector<ZonePart> partsOf(const Show& show, const PixelMap& map, std::span<const std::uint32_t> pixels);

/// `numbers` as runs, in the same order.
std::vector<PixelRun> runsOf(std::span<const int> numbers);
/// The numbers that `runs` stand for.
std::vector<int> numbersOf(const std::vector<PixelRun>& runs);

}  // namespace chispa
