// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/preview/clippicture.h"

#include <algorithm>

namespace chispa {
namespace {

/// The cells that are drawn, from bottom to top.
std::vector<std::size_t> shownCells(const ZoneCells& cells) {
  std::vector<std::size_t> shown;
  const bool isMatrix = cells.rows > 1 && cells.columns > 1;
  for (std::size_t i = 0; i < cells.column.size(); ++i)
    if (!isMatrix || cells.column[i] == cells.columns / 2) shown.push_back(i);
  if (isMatrix)
    std::sort(shown.begin(), shown.end(),
              [&](std::size_t a, std::size_t b) { return cells.row[a] < cells.row[b]; });
  return shown;
}

/// For each row of the picture, from the bottom, the cell that it shows.
std::vector<std::size_t> cellOfRow(const ZoneCells& cells, int height) {
  const auto shown = shownCells(cells);
  std::vector<std::size_t> rows(static_cast<std::size_t>(height));
  for (std::size_t row = 0; row < rows.size(); ++row)
    rows[row] = shown.empty() ? 0 : shown[(2 * row + 1) * shown.size() / (2 * rows.size())];
  return rows;
}

}  // namespace

ClipPicture drawClips(const CompiledScore& score, std::span<const CompiledClip> clips, const ZoneCells& cells,
                      TimeSpan span, int width, int height) {
  ClipPicture picture{width, height,
                      std::vector<std::uint8_t>(static_cast<std::size_t>(width * height) * 4, 0)};
  for (std::size_t i = 3; i < picture.rgba.size(); i += 4) picture.rgba[i] = 255;
  if (cells.count() == 0) return picture;
  const auto rows = cellOfRow(cells, height);
  Renderer renderer;
  std::size_t most = static_cast<std::size_t>(cells.count());
  for (const CompiledStave& stave : score.staves)
    most = std::max(most, static_cast<std::size_t>(stave.cells->count()));
  renderer.prepare(most);
  for (int x = 0; x < width; ++x) {
    renderer.renderClips(score, clips, cells, span.from + span.length * (2 * x + 1) / (2 * width));
    const LightBuffer& light = renderer.zoneLight();
    for (int row = 0; row < height; ++row) {
      const std::size_t cell = rows[static_cast<std::size_t>(row)];
      const Srgb8 c = toSrgb8({light.r[cell], light.g[cell], light.b[cell]});
      std::uint8_t* out = &picture.rgba[4 * static_cast<std::size_t>((height - 1 - row) * width + x)];
      out[0] = c.r;
      out[1] = c.g;
      out[2] = c.b;
    }
  }
  return picture;
}

}  // namespace chispa
