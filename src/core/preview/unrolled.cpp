// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/preview/unrolled.h"

#include <algorithm>
#include <cmath>

#include "core/zone/pixelmap.h"

namespace chispa {

void drawUnrolled(const Show& show, const PixelFrame& frame, int width, int height,
                  std::vector<std::uint8_t>& rgba) {
  rgba.assign(static_cast<std::size_t>(width) * static_cast<std::size_t>(height) * 4, 0);
  for (std::size_t i = 3; i < rgba.size(); i += 4) rgba[i] = 255;
  const auto ranges = pixelRanges(show);
  // The largest square dots with which all lines fit.
  const auto linesAt = [&](int side) {
    const int perLine = std::max(1, width / side);
    int lines = 0;
    for (const auto& fixture : show.fixtures) lines += (ranges.at(fixture->id).count + perLine - 1) / perLine;
    return lines;
  };
  int side = std::max(1, std::min(width, height) / 4);
  while (side > 1 && linesAt(side) * side > height) --side;
  const int perLine = std::max(1, width / side);
  int line = 0;
  for (const auto& fixture : show.fixtures) {
    const auto range = ranges.at(fixture->id);
    for (int p = 0; p < range.count; ++p) {
      const auto pixel = static_cast<std::size_t>(range.first + p);
      if (pixel >= frame.size()) continue;
      const Srgb8 c = toSrgb8({frame.r[pixel], frame.g[pixel], frame.b[pixel]});
      const int left = p % perLine * side;
      const int top = (line + p / perLine) * side;
      const int inner = side > 3 ? side - 1 : side;
      for (int y = top; y < std::min(height, top + inner); ++y)
        for (int x = left; x < std::min(width, left + inner); ++x) {
          std::uint8_t* out = &rgba[4 * (static_cast<std::size_t>(y) * static_cast<std::size_t>(width) +
                                         static_cast<std::size_t>(x))];
          out[0] = c.r;
          out[1] = c.g;
          out[2] = c.b;
        }
    }
    line += (range.count + perLine - 1) / perLine;
  }
}

}  // namespace chispa
