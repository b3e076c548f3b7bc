// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/preview/lookpicture.h"

#include <algorithm>

namespace chispa {
namespace {

constexpr std::size_t kMaxBands = 3;

/// The lanes of a step that are drawn: the largest, in the order of the look.
std::vector<const CompiledStave*> bandsOf(const CompiledStep& step) {
  std::vector<const CompiledStave*> bands;
  for (const CompiledStave& stave : step.staves) bands.push_back(&stave);
  std::stable_sort(bands.begin(), bands.end(), [](const CompiledStave* a, const CompiledStave* b) {
    return a->cells->count() > b->cells->count();
  });
  if (bands.size() > kMaxBands) bands.resize(kMaxBands);
  std::sort(bands.begin(), bands.end());
  return bands;
}

/// A stretch of columns in which one step is lit.
struct Columns {
  std::size_t step = 0;
  int first = 0;
  int count = 0;
};
std::vector<Columns> columnsOf(const CompiledLook& look, double elapsed_s, double shown_s, int width) {
  std::vector<Columns> all;
  for (int x = 0; x < width; ++x) {
    const std::size_t step = momentOf(look, elapsed_s + shown_s * (x + 0.5) / width).to;
    if (all.empty() || all.back().step != step) all.push_back({step, x, 0});
    ++all.back().count;
  }
  return all;
}

void copyInto(const ClipPicture& part, int x, int y, ClipPicture& whole) {
  for (int row = 0; row < part.height; ++row)
    std::copy_n(&part.rgba[static_cast<std::size_t>(row * part.width) * 4],
                static_cast<std::size_t>(part.width) * 4,
                &whole.rgba[static_cast<std::size_t>((y + row) * whole.width + x) * 4]);
}

}  // namespace

ClipPicture drawLook(const CompiledLook& look, double elapsed_s, double shown_s, int width, int height) {
  ClipPicture whole{width, height,
                    std::vector<std::uint8_t>(static_cast<std::size_t>(width * height) * 4, 0)};
  for (std::size_t i = 3; i < whole.rgba.size(); i += 4) whole.rgba[i] = 255;
  static const CompiledScore kNone;
  for (const Columns& columns : columnsOf(look, elapsed_s, shown_s, width)) {
    const auto bands = bandsOf(look.steps[columns.step]);
    for (std::size_t band = 0; band < bands.size(); ++band) {
      const int top = height * static_cast<int>(band) / static_cast<int>(bands.size());
      const int bottom = height * static_cast<int>(band + 1) / static_cast<int>(bands.size());
      const double from_s = elapsed_s + shown_s * columns.first / width;
      const TimeSpan span{micros(from_s), micros(shown_s * columns.count / width)};
      copyInto(drawClips(kNone, bands[band]->clips(), *bands[band]->cells, span, columns.count, bottom - top),
               columns.first, top, whole);
    }
  }
  return whole;
}

}  // namespace chispa
