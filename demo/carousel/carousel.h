// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/show/show.h"

namespace chispa::demo {

/// The carousel of Lantern Fair: its pieces, its zones, its wiring and its waltz. Always the same value.
Show carousel();

// The steps of making it, in order; each adds to `show`.
void addPieces(Show& show);
void addZones(Show& show);
void addWiring(Show& show);
void addPalettes(Show& show);
void addWaltz(Show& show);
void addLooks(Show& show);
void addDesks(Show& show);
void addNights(Show& show);

}  // namespace chispa::demo
