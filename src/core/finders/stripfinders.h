// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <string>

#include "core/finders/elimination.h"

namespace chispa {

// What a strip is, found by lighting it and asking what was seen. Each function makes the truths that are
// possible and the questions that can be asked; the Bench lights what a question says and shows its answers
// as pictures.

/// The answer that not the first pixel lit, but the second: a fourth channel on a strip of three.
inline constexpr int kSecondPixel = 4;

/// Channel order. Question k lights channel k + 1 of the strip's data. The answer is the colour of the first
/// pixel, 0–3 for R, G, B, W, or kSecondPixel. `withWhite` also considers strips with a white chip; three
/// answers decide.
Elimination<std::string> colourOrderFinder(bool withWhite);

/// At which end data enters: truth true for the far one. Question 0 lights the first pixel, 1 the last; the
/// answer is 0 for the near end, 1 for the far one.
Elimination<bool> directionFinder();

/// How many pixels in front are skipped, 0 to `most`. Question k lights data pixel k; the answer is the LED,
/// from 0.
Elimination<int> skippedFinder(int most);

/// How many pixels there are, 0 to `most`. Question k < most lights pixel k: 1 if it was seen. Question most
/// + k lights pixels k and k + 1: how many were seen. A halving search: at most log2(most + 1) answers,
/// rounded up, and one to check.
Elimination<int> countFinder(int most);

/// How many pixels share a value, 1 to `most`. Question k lights value k: the answer is 1,000 × the first
/// LED, from 0, + how many.
Elimination<int> groupingFinder(int most);

}  // namespace chispa
