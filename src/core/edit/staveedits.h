// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <string>
#include <vector>

#include "core/edit/planedits.h"
#include "core/show/show.h"

namespace chispa {

// Edits of the staves of a score and their folders; see planedits.h. The staves of a folder always stand
// together, and a folder without staves goes.

/// Gives the zone a stave above that of `before`, in the same folder, or the last one if `before` has none.
/// One that it has moves.
void placeStave(Show& show, ScoreId score, ZoneId zone, ZoneId before = {});
/// Moves the zone's stave past its upper or lower neighbour, into the folder that this one is in, if any.
void moveStave(Show& show, ScoreId score, ZoneId zone, bool up);
/// Takes the zone's stave away, with the clips on it.
void removeStave(Show& show, ScoreId score, ZoneId zone);

/// Puts staves into the folder called `name`, which is made where the first of them stands if there is none.
void putInFolder(Show& show, ScoreId score, const std::vector<ZoneId>& zones, const std::string& name);
/// Takes the stave out of its folder: it stands below it then.
void takeOutOfFolder(Show& show, ScoreId score, ZoneId zone);
void renameFolder(Show& show, ScoreId score, const std::string& from, const std::string& to);
/// A name that no folder of the score has: `base`, or with a number.
std::string freeFolderName(const Score& score, const std::string& base);
/// The folder that the zone's stave is in, or null.
const StaveFolder* folderOf(const Score& score, ZoneId zone);

}  // namespace chispa
