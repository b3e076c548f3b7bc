// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <memory>
#include <optional>
#include <unordered_map>
#include <vector>

#include "core/show/show.h"

namespace chispa {

/// Numbers all pixels of a show in one row: fixtures in the show's order, pixels in data order.
struct PixelMap {
  struct Range {
    int first = 0;
    int count = 0;

    bool operator==(const Range&) const = default;
  };

  std::unordered_map<FixtureId, Range> ranges;
  /// World position of every pixel, in metres.
  std::vector<Vec3> positions;

  /// How large each LED looks: 1 for a plain strip's, more for lamps that draw more current.
  std::vector<float> lampSize;

  int count() const { return static_cast<int>(positions.size()); }
  /// The fixture's pixels, or nothing if the show has no such fixture.
  std::optional<Range> rangeOf(FixtureId id) const;
};

PixelMap mapPixels(const Show& show);
/// The same, with the places of what has not changed since `before`, whose map `map` is. Null if the pixels
/// are numbered otherwise.
std::shared_ptr<const PixelMap> remapPixels(const Show& show, const Show& before,
                                            const std::shared_ptr<const PixelMap>& map);
/// The numbers alone, without working any position out.
std::unordered_map<FixtureId, PixelMap::Range> pixelRanges(const Show& show);

}  // namespace chispa
