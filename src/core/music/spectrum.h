// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <vector>

#include "core/music/audio.h"
#include "core/music/features.h"

namespace chispa {

/// What analysis hears, MusicFeatures::kRate times a second: energy by band, and how much of it is new.
struct SpectralFrames {
  /// Energy in decibels above a floor, [frame][band].
  std::vector<std::array<float, kBands>> bands;
  /// Rise of log energy since the frame before (spectral flux, Bello et al. 2005 §II.C): whole, and low, middle and high.
  std::vector<float> onset;
  std::array<std::vector<float>, MusicFeatures::kRanges> rangeOnsets;
  const std::vector<float>& lowOnset() const { return rangeOnsets[0]; }
};

SpectralFrames analyseSpectrum(const AudioClip& clip);

/// Loudness curves 0–1 of the piece, scaled so that its loudest tenth reaches 1.
MusicFeatures featuresOf(const SpectralFrames& frames);

}  // namespace chispa
