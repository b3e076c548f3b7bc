// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <span>
#include <vector>

#include "core/live/livenote.h"
#include "core/show/show.h"

namespace chispa {

/// Writes what was played into the score, as clips that lie over all others and give the same light. A play
/// that had not ended goes on until `end`. Returns the clips.
std::vector<ClipId> writePlayed(Show& show, ScoreId score, std::span<const LiveNote> notes, Micros end);

}  // namespace chispa
