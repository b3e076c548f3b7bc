// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <span>
#include <vector>

#include "core/show/show.h"

namespace chispa {

// Edits of what listens to desks; see planedits.h.

DeskInputId addDeskInput(Show& show, const DeskInput& like);
void deleteDeskInput(Show& show, DeskInputId id);
/// Each of these fixtures becomes one cell that listens, in order, from `first` on: a zone of one cell is
/// made for those that have none. Returns what was added.
std::vector<DeskInputId> listenCollapsed(Show& show, std::span<const FixtureId> fixtures, DeskInput first);
/// Where the next fixture's channels may begin, behind all that listen in this universe.
int nextDeskChannel(const Show& show, Protocol protocol, int universe);

}  // namespace chispa
