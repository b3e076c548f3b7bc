// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <vector>

#include "core/music/audio.h"
#include "core/music/features.h"
#include "core/music/spectrogram.h"

namespace chispa {

/// What is heard at all: from the lowest pitch to the highest, and the quietest.
inline constexpr double kSpectrumLow_hz = 40;
inline constexpr double kSpectrumHigh_hz = 16'000;
inline constexpr float kSpectrumFloor_db = -80;

/// What analysis hears, MusicFeatures::kRate times a second: energy by band, and how much of it is new.
struct SpectralFrames {
  /// Energy in decibels above a floor, [frame][band].
  std::vector<std::array<float, kBands>> bands;
  /// Rise of log energy since the frame before (spectral flux, Bello et al. 2005 §II.C): whole, and low,
  /// middle and high.
  std::vector<float> onset;
  std::array<std::vector<float>, MusicFeatures::kRanges> rangeOnsets;
  Spectrogram picture;
  const std::vector<float>& lowOnset() const { return rangeOnsets[0]; }
};

/// Edges of `count` bands over what is heard, equally wide in logarithm of frequency where the transform is
/// fine enough, in Hz.
std::vector<double> bandEdges_hz(int count);

SpectralFrames analyseSpectrum(const AudioClip& clip);

/// Loudness curves 0–1 of the piece, scaled so that its loudest tenth reaches 1.
MusicFeatures featuresOf(const SpectralFrames& frames);

}  // namespace chispa
