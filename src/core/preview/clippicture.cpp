// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/preview/clippicture.h"

#include <algorithm>

namespace chispa {
namespace {

/// Row of the picture, from the bottom, that each cell is drawn in.
std::vector<int> rowsOf(const ZoneCells& cells, int height, bool isMatrix) {
  std::vector<int> rows(static_cast<std::size_t>(cells.count()));
  for (std::size_t i = 0; i < rows.size(); ++i) {
    const float place = isMatrix ? cells.along(Axis::Rows)[i] : cells.along(Axis::Along)[i];
    rows[i] = std::clamp(static_cast<int>(place * static_cast<float>(height)), 0, height - 1);
  }
  return rows;
}

/// A matrix is shown by its rows; strings of equal cells one above the other.
bool showsRows(const ZoneCells& cells) { return cells.rows > 1 && cells.columns > cells.rows; }

float brightness(Rgb c) { return c.r + c.g + c.b; }

/// Fewer cells than the picture has rows leave gaps between theirs; each gap takes the colour below.
void fillGaps(std::vector<Rgb>& column, const std::vector<bool>& used) {
  Rgb last = column[static_cast<std::size_t>(std::find(used.begin(), used.end(), true) - used.begin())];
  for (std::size_t i = 0; i < column.size(); ++i) {
    if (used[i]) last = column[i];
    column[i] = last;
  }
}

}  // namespace

ClipPicture drawClip(const CompiledClip& clip, const ZoneCells& cells, const MusicGrid& grid,
                     const MusicFeatures* features, TimeSpan span, int width, int height) {
  ClipPicture picture{width, height, std::vector<std::uint8_t>(static_cast<std::size_t>(width * height) * 4, 0)};
  for (std::size_t i = 3; i < picture.rgba.size(); i += 4) picture.rgba[i] = 255;
  if (!clip.effect || cells.count() == 0) return picture;
  const std::vector<int> rows = rowsOf(cells, height, showsRows(cells));
  std::vector<bool> used(static_cast<std::size_t>(height), false);
  for (const int row : rows) used[static_cast<std::size_t>(row)] = true;
  Renderer renderer;
  std::vector<Rgb> column(static_cast<std::size_t>(height));
  for (int x = 0; x < width; ++x) {
    const Micros t = span.from + span.length * (2 * x + 1) / (2 * width);
    renderer.renderClip(clip, cells, grid, features, t);
    const LightBuffer& light = renderer.clipLight();
    std::fill(column.begin(), column.end(), Rgb{});
    for (std::size_t i = 0; i < rows.size(); ++i) {
      const Rgb cell{light.r[i], light.g[i], light.b[i]};
      Rgb& dot = column[static_cast<std::size_t>(rows[i])];
      if (brightness(cell) > brightness(dot)) dot = cell;
    }
    fillGaps(column, used);
    for (int row = 0; row < height; ++row) {
      const Srgb8 c = toSrgb8(column[static_cast<std::size_t>(row)]);
      std::uint8_t* out = &picture.rgba[4 * static_cast<std::size_t>((height - 1 - row) * width + x)];
      out[0] = c.r;
      out[1] = c.g;
      out[2] = c.b;
    }
  }
  return picture;
}

}  // namespace chispa
