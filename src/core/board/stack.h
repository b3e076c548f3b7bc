// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <array>
#include <optional>
#include <string>
#include <vector>

#include "core/board/scenes.h"
#include "core/board/terms.h"

namespace chispa::board {

/// Linear light of a zone's cells over nothing as terms, or why it cannot be said.
struct StackLight {
  std::optional<std::array<Term, 3>> light;
  std::string refusal;
};

/// The clips `shown` of `stave`, by their numbers in it, laid on each other as the renderer lays them;
/// `condenses` works out beforehand what it can of each.
StackLight stackLight(Graph& graph, const BoardScene& scene, const CompiledStave& stave,
                      const std::vector<std::size_t>& shown, const std::vector<std::size_t>& keptCells,
                      bool condenses);

/// The clips of a score's stave that are drawn at `t`, by their numbers; a look's are all and always.
std::vector<std::size_t> shownAt(const BoardScene& scene, const CompiledStave& stave, Micros t);

}  // namespace chispa::board
