// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <cstdint>
#include <set>
#include <string>
#include <utility>
#include <vector>

#include "core/board/program.h"
#include "core/board/scenes.h"
#include "core/board/strip.h"

namespace chispa::board {

/// The frame that never comes: what lasts is over then.
inline constexpr std::uint32_t kNever = 0xffffff;

/// When a frame is, in whole milliseconds, as the player counts them.
Micros timeOf(std::uint32_t frame, int rate);
/// The first frame that is not before `t`.
std::uint32_t frameFrom(Micros t, int rate);
/// How many frames a scene has; 0 for one that lasts.
std::uint32_t framesOf(const BoardScene& scene, int rate);

/// A stave's cells that have values of the strip.
struct StaveOnBoard {
  const CompiledStave* stave = nullptr;
  std::string zone;
  std::vector<std::size_t> keptCells;
  CellPixels cellValues;
  std::set<std::uint16_t> values;
};
/// Those of a scene, in its order; a value shows what the pixel in its middle does. The scene must live as
/// long.
std::vector<StaveOnBoard> stavesOnBoard(const Show& show, const BoardScene& scene, const BoardStrip& strip);

/// Staves that share values, directly or through others, by their numbers.
std::vector<std::vector<std::size_t>> groupsOf(const std::vector<StaveOnBoard>& staves);

/// A stretch of time in which the same clips of a group of staves are lit.
struct Stretch {
  std::uint32_t first = 0;
  std::uint32_t end = kNever;
  /// Staves that are lit, and the clips of each.
  std::vector<std::pair<std::size_t, std::vector<std::size_t>>> lit;
};
/// Those of a group, in order; where nothing is lit there is none.
std::vector<Stretch> stretchesOf(const BoardScene& scene, const std::vector<StaveOnBoard>& staves,
                                 const std::vector<std::size_t>& group, int rate);

}  // namespace chispa::board
