// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <vector>

#include "core/media/audio.h"
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

/// One frame of SpectralFrames.
struct SpectralFrame {
  std::array<float, kBands> bands{};
  float onset = 0;
  std::array<float, MusicFeatures::kRanges> rangeOnsets{};
  /// Levels of the picture's rows, in decibels above the floor.
  std::array<float, Spectrogram::kRows> rows{};
};

/// Hears frame after frame, MusicFeatures::kRate a second. One thread.
class SpectrumAnalyser {
 public:
  /// Frames of sound that one frame is made of, and from one to the next.
  static constexpr std::size_t kWindow = 2048;
  static constexpr std::size_t kHop = AudioClip::kRate / MusicFeatures::kRate;

  SpectrumAnalyser();
  /// The next frame, of the power of a window's bins.
  SpectralFrame next(const std::vector<float>& power);

 private:
  /// Attacks of struck notes last about two frames: a frame is compared with the one before the last.
  static constexpr std::size_t kBack = 2;
  std::vector<int> fine_, coarse_;
  std::array<std::array<float, Spectrogram::kRows>, kBack> history_{};
  std::size_t count_ = 0;
};

/// Edges of `count` bands over what is heard, equally wide in logarithm of frequency where the transform is
/// fine enough, in Hz.
std::vector<double> bandEdges_hz(int count);

SpectralFrames analyseSpectrum(const AudioClip& clip);

/// Loudness curves 0–1 of the piece, scaled so that its loudest tenth reaches 1.
MusicFeatures featuresOf(const SpectralFrames& frames);

}  // namespace chispa
