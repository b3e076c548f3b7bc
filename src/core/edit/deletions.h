// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/edit/remap.h"

namespace chispa {

// What would go along with things that are deleted, a sentence each; empty if nothing hangs on them.

/// Beads on ports, parts of zones, and zones that would be left empty with the clips on them. A zone of such
/// a fixture alone that no clip uses does not count: it came with the fixture.
Losses lossesOfDeleting(const Show& show, const std::vector<FixtureId>& fixtures);
/// Clips on it.
Losses lossesOfDeleting(const Show& show, ZoneId zone);
/// Clips that are coloured by it.
Losses lossesOfDeleting(const Show& show, PaletteId palette);
/// What is bound to it, and where the night plays it.
Losses lossesOfDeleting(const Show& show, LookId look);
/// Rules and lists that play it.
Losses lossesOfDeleting(const Show& show, SetListId list);
/// What hangs on it.
Losses lossesOfDeleting(const Show& show, ControllerId controller);
/// Its clips, marks and own zones, and where the night plays it.
Losses lossesOfDeleting(const Show& show, ScoreId score);

}  // namespace chispa
