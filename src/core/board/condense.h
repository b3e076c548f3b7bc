// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <array>

#include "core/board/terms.h"

namespace chispa::board {

/// The same light with all that depends on one bounded number and on nothing else, time included, worked out
/// beforehand as a palette over that number; `light` itself where there is no such number. Edges in it become
/// as fine as a palette's steps.
std::array<Term, 3> condensed(Graph& graph, const std::array<Term, 3>& light);

}  // namespace chispa::board
