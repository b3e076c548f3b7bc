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

/// Finds beats over the whole piece at once, the speed drifting with it (Viterbi's algorithm over beat and
/// period), then the metre (3 or 4) and the first beats of bars, on which low onsets fall. Empty if nothing
/// sounds.
FoundBeats findBeats(const SpectralFrames& frames);

/// Instants at which something new sounds: peaks of an onset curve of SpectralFrames that stand out from what
/// is around them.
std::vector<Micros> findOnsets(const std::vector<float>& curve);

/// First beats of bars at which the piece changes: where the sound of the bars before differs most from that
/// of those behind (checkerboard novelty of the bars' likeness, J. Foote 2000). The first bar is always one;
/// at least four bars lie between.
std::vector<Micros> findSections(const SpectralFrames& frames, const std::vector<Micros>& bars);

}  // namespace chispa
