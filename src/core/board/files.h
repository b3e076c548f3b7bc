// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <filesystem>
#include <string>
#include <vector>

#include "core/base/result.h"
#include "core/board/kinds.h"

namespace chispa::board {

/// A file that is written for a board's maker.
struct BoardFile {
  std::string name;
  std::string text;
};

/// light.h, player.h, player.c, the example for the board, and README.md with wiring and numbers.
std::vector<BoardFile> boardFiles(const BoardLight& light, const BoardKind& kind, const std::string& show);

/// Writes them into `folder`, which is made if need be: all of them, or none. Other files there are left
/// alone.
Outcome writeBoardFiles(const std::vector<BoardFile>& files, const std::filesystem::path& folder);

}  // namespace chispa::board
