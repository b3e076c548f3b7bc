// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <string>
#include <vector>

namespace chispa {

/// Words drawn as dots: how much of each dot the letters cover, 0–1, and the letters with a rim around them.
struct TextRaster {
  int columns = 0;
  int rows = 0;
  /// [row from the bottom × columns + column].
  std::vector<float> letters;
  std::vector<float> rim;
  /// Sums of both up to each dot, with a first row and column of 0, for means over areas (summed-area tables,
  /// Crow 1984).
  std::vector<double> letterSums;
  std::vector<double> rimSums;

  /// Mean of `sums` over columns [x0, x1) and rows [y0, y1), which may reach beyond the words.
  float mean(const std::vector<double>& sums, double x0, double y0, double x1, double y1) const;
};

/// The name of Chispa's own letters of dots, 5 by 7.
inline constexpr const char* kDotFont = "dots";

/// Draws `words` (UTF-8) in the font of the family `font`, as the system's fonts are found (fontconfig), or
/// in dots; a rim of `rim` 0–1 of the letters' height. What cannot be drawn is left out.
TextRaster drawText(const std::string& words, const std::string& font, double rim);

}  // namespace chispa
