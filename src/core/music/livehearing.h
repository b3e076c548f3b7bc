// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <deque>
#include <span>
#include <vector>

#include "core/music/beats.h"
#include "core/music/chromagram.h"
#include "core/music/heardmusic.h"
#include "core/music/spectrum.h"
#include "core/music/transform.h"

namespace chispa {

/// Hears sound as it is made: bands, level and onsets within 35 ms, and from a few seconds on tempo and
/// beats, by the finder that hears whole pieces, over the last seconds again and again. Loud and quiet are
/// what the last half minute made of them. One thread.
class LiveHearing {
 public:
  LiveHearing();
  /// Takes in sound at AudioClip::kRate, the mean of its channels, as much as there is.
  void hear(std::span<const float> mono);
  const HeardMusic& now() const { return heard_; }
  /// How much sound was taken in.
  double seconds() const { return static_cast<double>(taken_) / AudioClip::kRate; }

 private:
  /// Follows how quiet and how loud a curve is, in decibels.
  struct Scale {
    float quiet = 0;
    float loud = 0;
    int heard = 0;
    float scaled(float level);
  };
  /// Tells a rise that stands out of the last second's.
  struct Rises {
    std::deque<float> recent;
    /// Frames until another may follow.
    int waiting = 0;
    bool isOnset(float rise);
  };

  void step();
  void append(const SpectralFrame& frame);
  void decide();
  /// Takes over beats that were found, `begins_s` after listening began.
  void follow(const FoundBeats& found, double begins_s);

  Transform near_{SpectrumAnalyser::kWindow};
  Transform far_{kChromaWindow};
  SpectrumAnalyser spectrum_;
  ChromaAnalyser chroma_;
  /// The last sound, the newest at the end.
  std::vector<float> recent_;
  std::size_t taken_ = 0;
  std::size_t steps_ = 0;
  std::deque<std::array<float, Spectrogram::kRows>> rows_;
  std::deque<std::pair<Chroma, Chroma>> chromas_;
  std::array<Scale, kBands> bandScales_;
  Scale levelScale_;
  std::array<Rises, MusicFeatures::kRanges> rises_;
  HeardMusic heard_;
};

}  // namespace chispa
