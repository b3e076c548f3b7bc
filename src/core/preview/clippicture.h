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

/// A stretch of time, its end not in it.
struct TimeSpan {
  Micros from{0};
  Micros length{0};
};

/// Draws what `clip` shows on `cells` during `span`: of a matrix or of several strings the middle column, of all else
/// every cell, or as many as the picture has rows.
ClipPicture drawClip(const CompiledClip& clip, const ZoneCells& cells, const MusicGrid& grid,
                     const MusicFeatures* features, TimeSpan span, int width, int height);

}  // namespace chispa
