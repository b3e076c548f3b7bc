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

/// Finds tempo by the autocorrelation of the onset curve, beats by dynamic programming over the whole piece
/// (D. Ellis, "Beat Tracking by Dynamic Programming", 2007), then the metre (3 or 4) and down-beat on which low
/// onsets fall. Empty if nothing sounds.
FoundBeats findBeats(const SpectralFrames& frames);

/// Instants at which something new sounds: peaks of the onset curve that stand out from what is around them.
std::vector<Micros> findOnsets(const SpectralFrames& frames);

}  // namespace chispa
