// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <string>

namespace chispa {

/// Chispa's own lettering of dots: capitals, digits and a few signs, 5 dots wide and 7 high.
namespace dotfont {

inline constexpr int kWidth = 5;
inline constexpr int kHeight = 7;
/// Dots from one letter's start to the next one's.
inline constexpr int kAdvance = 6;

/// True if the dot of `letter` at `column` (from the left) and `row` (from the bottom) is lit. Letters
/// without a drawing are blank.
bool isLit(char letter, int column, int row);

}  // namespace dotfont
}  // namespace chispa
