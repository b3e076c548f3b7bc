// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <vector>

#include "core/edit/planedits.h"
#include "core/show/show.h"

namespace chispa {

// Edits of several marks of a score at once, on any of its lanes; see planedits.h. Marks that are gone are
// passed over, and each lane stays in the order of time.

/// Moves them all as far as the first can go: their distances stay.
void moveMarks(Show& show, ScoreId score, const std::vector<MarkId>& marks, Micros by);
/// Puts them at equal distances between the first and the last of them.
void spreadMarks(Show& show, ScoreId score, const std::vector<MarkId>& marks);
/// Makes their distances from the first `factor` times as long, and their own lengths too.
void stretchMarks(Show& show, ScoreId score, const std::vector<MarkId>& marks, double factor);
/// Moves each to the nearest mark of the lane of `grid`, beats or bars; nothing happens if the score has
/// none.
void quantiseMarks(Show& show, ScoreId score, const std::vector<MarkId>& marks, LaneKind grid);
void deleteMarks(Show& show, ScoreId score, const std::vector<MarkId>& marks);

/// All marks between two instants, both with them, on the lane that both lie on; empty if they lie on
/// different ones.
std::vector<MarkId> marksBetween(const Score& score, MarkId one, MarkId other);

}  // namespace chispa
