// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <cstdint>
#include <vector>

#include "core/render/renderer.h"

namespace chispa {

/// A picture of a clip as it will really look: time to the right, cells from bottom to top.
struct ClipPicture {
  int width = 0;
  int height = 0;
  /// Four bytes a pixel: R, G, B, 255; rows from the top.
  std::vector<std::uint8_t> rgba;
};

/// Draws what `clips` show together on `cells`, one zone's, during `span`: of a matrix or of several strings
/// the middle column, of all else every cell, or as many as the picture has rows. `score` gives their music
/// and other zones.
ClipPicture drawClips(const CompiledScore& score, std::span<const CompiledClip> clips, const ZoneCells& cells,
                      TimeSpan span, int width, int height);

}  // namespace chispa
