// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <vector>

namespace chispa::demo {

inline constexpr int kRate = 48'000;

/// Plays the tune on an organ of our own with bass, chords, bells and drums: stereo, interleaved, ±1.
std::vector<float> playTune();

}  // namespace chispa::demo
