// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <cstdint>
#include <optional>
#include <vector>

#include "core/board/blob.h"

namespace chispa::board {

/// What some values of a board's strip show, frame by frame.
struct FrameSequence {
  int channels = 3;
  /// Numbers of the values, in rising order.
  std::vector<std::uint16_t> values;
  /// Each has the channels of all values, in that order.
  std::vector<Blob::Bytes> frames;
  /// After the last frame it goes on with this one, for ever; else it stays as it is.
  std::optional<std::size_t> loopsFrom;
};

/// Writes the sequence into `blob` and returns where its body stands: changes from frame to frame, with runs,
/// repeats along the strip, and stretches of frames that come again. It begins from the dark.
/// docs/board-light.md describes the bytes.
std::size_t writeFrames(const FrameSequence& sequence, Blob& blob);

/// At most `count` colours in place of all that occur, the nearest for each (median cut, P. Heckbert 1982).
void reduceColours(FrameSequence& sequence, int count);

}  // namespace chispa::board
