// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <string>
#include <vector>

#include "core/show/show.h"

namespace chispa {

/// What of a score has certain words in it, in order of time.
struct ScoreMatches {
  std::vector<ClipId> clips;
  std::vector<Mark> marks;
};

/// Clips whose effect, block, zone, palette or own words have `words` in them, and marks that do; letters
/// large or small. Nothing for no words.
ScoreMatches searchScore(const Show& show, const Score& score, const std::string& words);

}  // namespace chispa
