// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <string>
#include <vector>

#include "core/edit/clipedits.h"
#include "core/music/sections.h"

namespace chispa {

// Sections of a score that sound alike, and their light; see planedits.h.

/// What a found section is called: its letter, and how it sounds where that is plain, as in "B full".
std::string sectionName(const FoundSection& section);

/// True if the names mean the same music: they are one but for a number or a word of how it sounds behind
/// them, as in "A" and "A quiet", or "Verse 1" and "Verse 2".
bool areAlike(const std::string& name, const std::string& other);

/// The other sections that are like the one `at` lies in, in order of time.
std::vector<TimeSpan> sectionsLike(const Score& score, Micros at);

/// Gives all sections that are like the one `at` lies in its light, in place of what they have: bar by bar,
/// from its beginning again where they have more bars; a clip over all of it lies over all of them. Returns
/// the copies.
ClipList copySectionLight(Show& show, ScoreId score, Micros at);

/// Gives a score the light of another, in place of its own: staves, folders and clips, bar by bar by the bars
/// of each, from the beginning again where it has more of them; a clip over all of it lies over all of it
/// here too. What lies on zones that the other score has for itself is left out. Returns the copies.
ClipList takeLightOf(Show& show, ScoreId score, ScoreId from);

}  // namespace chispa
