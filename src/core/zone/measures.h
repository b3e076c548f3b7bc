// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <vector>

#include "core/zone/cells.h"
#include "core/zone/partpixels.h"

namespace chispa {

/// Fills in all that follows from where the cells of `zone` lie: their places by axis, face, pieces and
/// lengths. `parts` are those they were made of; positions, pixels, columns and rows are there.
void measureCells(const Zone& zone, const std::vector<PartPixels>& parts, const PixelMap& map,
                  ZoneCells& cells);

/// The same for cells of which some have moved, and nothing else is new: `cells` has the measures from when
/// its pixels lay as `before` says, and the positions of now.
void measureMoved(const Zone& zone, const std::vector<PartPixels>& parts, const PixelMap& map,
                  const PixelMap& before, ZoneCells& cells);

}  // namespace chispa
