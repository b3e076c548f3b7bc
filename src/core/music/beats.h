// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <vector>

#include "core/music/spectrum.h"

namespace chispa {

/// Beats and bars found in a piece.
struct FoundBeats {
  double tempo_bpm = 0;
  std::vector<Micros> beats;
  /// First beats of bars; each is one of `beats`.
  std::vector<Micros> bars;
  int beatsPerBar = 0;
};

/// Finds beats over the whole piece at once, the speed drifting with it (Viterbi's algorithm over beat and period), then
/// the metre (3 or 4) and the first beats of bars, on which low onsets fall. Empty if nothing sounds.
FoundBeats findBeats(const SpectralFrames& frames);

/// Instants at which something new sounds: peaks of the onset curve that stand out from what is around them.
std::vector<Micros> findOnsets(const SpectralFrames& frames);

}  // namespace chispa
