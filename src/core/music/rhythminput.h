// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <array>
#include <vector>

#include "core/music/chromagram.h"
#include "core/music/spectrogram.h"

namespace chispa {

/// What the finder of beats listens to, kRate frames a second; each number lies within about 0–1 and does not
/// depend on how loud the recording is.
struct RhythmInput {
  static constexpr int kRate = 50;
  /// How much louder each band became (spectral flux in bands, S. Böck and G. Widmer, DAFx 2013, §3.1).
  static constexpr int kRises = 24;
  /// How loud wider bands are.
  static constexpr int kLevels = 12;
  /// How much harmony and bass change here, within a quarter of a second and within a second.
  static constexpr int kChanges = 4;
  static constexpr int kNumbers = kRises + kLevels + kChanges;

  std::vector<std::array<float, kNumbers>> frames;
};

RhythmInput rhythmInput(const Spectrogram& picture, const Chromagram& harmony);

}  // namespace chispa
