// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <optional>
#include <vector>

#include "core/base/time.h"
#include "core/music/barpointer.h"
#include "core/music/beatlevel.h"
#include "core/music/beatnetwork.h"
#include "core/music/spectrum.h"

namespace chispa {

/// Beats and bars found in a piece.
struct FoundBeats : BeatMarks {
  double tempo_bpm = 0;
  /// Of most bars.
  int beatsPerBar = 0;
  /// How sure each beat is, 0–1: how plainly beats are heard in the seconds around it.
  std::vector<float> sureness;

  /// Below this a beat is likely to be wrong.
  static constexpr float kUnsure = 0.4f;
  /// How sure the beat at `at` is; 1 where none was found, for what was put there by hand.
  float surenessAt(Micros at) const;
};

/// What is known of the beats of a piece beforehand.
struct BeatWish {
  /// Beats that were tapped, in order; the first one begins a bar, the last one the next.
  std::vector<Micros> bar;
  /// The tempo that the rest keeps to, by and large.
  std::optional<double> tempo_bpm;
};

/// What is heard of beats in a piece: the finder decides by this alone.
BeatChances hearBeats(const SpectralFrames& frames, const Chromagram& harmony);

/// The beats that were placed, at their instants; none if there are fewer than two.
FoundBeats foundBeats(const BeatChances& chances, const std::vector<PlacedBeat>& placed);

/// Beats, bars and tempo over the whole piece. Empty if nothing sounds.
FoundBeats findBeats(const BeatChances& chances, const BeatWish& wish = {});

/// Another reading of a piece, and how much less likely it is than the likeliest, for a second of music, in
/// natural logarithms: 0 for the best.
struct BeatReading {
  BeatLevel level = BeatLevel::Twice;
  BeatMarks marks;
  double behind = 0;
};

/// Readings of a piece beside `found`, the likeliest first.
std::vector<BeatReading> otherReadings(const BeatChances& chances, const BeatMarks& found);

}  // namespace chispa
