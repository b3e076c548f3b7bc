// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <memory>

#include "core/zone/cells.h"

namespace chispa {

/// What cellsOf() gives for a zone of which some fixtures stand elsewhere than before, sooner, since which
/// pixels each cell has is known: `cells` are those of when its pixels lay as `before` says. Null where the
/// order of its cells depends on where they are. All else of the zone and its fixtures must be as it was.
std::shared_ptr<const ZoneCells> movedCells(const Show& show, const PixelMap& map, const Zone& zone,
                                            const PixelMap& before, const ZoneCells& cells);

}  // namespace chispa
