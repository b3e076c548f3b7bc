// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <string>
#include <vector>

#include "core/board/write.h"

namespace chispa::board {

/// A small board by what decides whether light fits into it.
struct BoardKind {
  std::string name;
  /// 8 or 32.
  int bits = 8;
  double clock_mhz = 16;
  std::size_t flash = 32 * 1024;
  std::size_t ram = 2 * 1024;

  bool operator==(const BoardKind&) const = default;
};

/// Boards of usual sizes, the smallest first.
const std::vector<BoardKind>& boardKinds();
/// The smallest of them that is as large as `flash` and `ram`, or the largest, with those sizes.
BoardKind boardOf(std::size_t flash, std::size_t ram);

/// What light takes of a board, in bytes.
struct BoardUse {
  std::size_t player = 0;
  std::size_t programs = 0;
  std::size_t frames = 0;
  /// Heads, lists of parts, and what scenes share.
  std::size_t rest = 0;
  std::size_t ram = 0;
  /// Frames a second that the board can compute and send of the costliest scene.
  double fastest = 0;

  std::size_t flash() const { return player + programs + frames + rest; }
};
BoardUse useOf(const BoardLight& light, const BoardKind& kind);

/// What does not fit, one sentence each, with numbers; empty if all does.
std::vector<std::string> lacksOf(const BoardLight& light, const BoardKind& kind);

/// A change that makes light smaller: what it is, what it saves, and what it costs.
struct BoardSaving {
  std::string what;
  BoardOptions options;
  std::size_t saved = 0;
  /// Mean ΔE₀₀ of the worst scene.
  double loss = 0;
};

/// Each change that is left to make to `plan`, tried; those that save nothing are left out. `light` is what
/// it gives as it is.
std::vector<BoardSaving> savingsOf(const Show& show, const CompiledShow& compiled, const BoardPlan& plan,
                                   const BoardLight& light, const Progress& progress);

/// Above this a loss is seen side by side.
inline constexpr double kSeenLoss = 2;

}  // namespace chispa::board
