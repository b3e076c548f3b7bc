// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <array>
#include <cstdint>
#include <utility>
#include <vector>

#include "core/media/audio.h"

namespace chispa {

/// How loud each of the twelve pitch classes is, from C: in all octaves together.
using Chroma = std::array<float, 12>;

/// The harmony of a piece over time, kRate chroma a second (T. Fujishima, ICMC 1999): of the middle octaves,
/// and of the bass. Each is at unit length, or 0 where nothing sounds.
struct Chromagram {
  static constexpr double kRate = 12.5;

  std::vector<Chroma> middle;
  std::vector<Chroma> bass;
};

/// Frames of sound that one chroma is made of.
inline constexpr std::size_t kChromaWindow = 16'384;

/// The chroma of the middle octaves and of the bass, of the power of a window's bins. One thread.
class ChromaAnalyser {
 public:
  ChromaAnalyser();
  std::pair<Chroma, Chroma> next(const std::vector<float>& power) const;

 private:
  /// The bins of a range of pitches, and the class that each belongs to.
  struct PitchBins {
    std::size_t first = 0;
    std::vector<std::uint8_t> classes;
  };
  static PitchBins pitchBins(double low_hz, double high_hz);
  static Chroma chromaOf(const std::vector<float>& power, const PitchBins& bins);
  PitchBins middle_, bass_;
};

Chromagram chromagramOf(const AudioClip& clip);

/// The cosine of the angle between two of them: 1 where they sound alike; 0 where one is silent.
float cosineOf(const Chroma& a, const Chroma& b);

/// How much `chroma` differs between the `reach_s` seconds before an instant and those after it, 0–1: large
/// where a chord changes.
float harmonicChange(const std::vector<Chroma>& chroma, double at_s, double reach_s);

}  // namespace chispa
