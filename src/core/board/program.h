// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <array>
#include <cstdint>
#include <optional>
#include <span>
#include <vector>

#include "core/board/blob.h"
#include "core/board/terms.h"
#include "core/show/response.h"

namespace chispa::board {

/// The pixels of each cell that a program lights, by their numbers on the board.
using CellPixels = std::vector<std::vector<std::uint16_t>>;

/// What became of a program.
struct WrittenProgram {
  /// It goes through a palette in equal steps from cell to cell, which is quicker.
  bool isSweep = false;
  /// Where its body stands.
  std::size_t at = 0;
  /// Registers of 32 bits that it needs.
  int registers = 0;
  /// Steps for a frame and for each cell.
  int stepsOfFrame = 0;
  int stepsOfCell = 0;
};

/// Writes the program that computes `light` (red, green and blue, linear) for cells with `pixels` into
/// `blob`, with palettes as fine as a strip of that response needs them; palettes, tables and maps stand once
/// however often they are used. Nothing if it needs more registers or pixels a cell than there can be.
/// docs/board-light.md describes the bytes.
std::optional<WrittenProgram> writeProgram(Graph& graph, const std::array<Term, 3>& light,
                                           const CellPixels& pixels, const Response& response, Blob& blob);

}  // namespace chispa::board
