// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <array>

#include "core/media/audio.h"

namespace chispa {

/// Where low ends and high begins in a waveform of three bands.
inline constexpr double kLowEnds_hz = 200;
inline constexpr double kHighBegins_hz = 2'000;

/// The waveform low, middle and high, split by fourth-order crossovers (S. Linkwitz, J. Audio Eng. Soc. 24,
/// 1976) of second-order sections after R. Bristow-Johnson's "Audio EQ Cookbook" (W3C, 2021).
std::array<WaveformPeaks, 3> bandWaves(const AudioClip& clip);

}  // namespace chispa
