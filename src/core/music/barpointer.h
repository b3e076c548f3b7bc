// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <array>
#include <vector>

#include "core/music/beatnetwork.h"

namespace chispa {

/// A beat that was decided for: its frame of RhythmInput, and its place in a bar of `metre` beats, from 0.
struct PlacedBeat {
  std::size_t frame = 0;
  int place = 0;
  int metre = 4;
};

/// What is held likely beside what is heard; in natural logarithms of probability.
struct MetreModel {
  /// How unlikely a beat is to be longer or shorter than the one before it, by the square of the change.
  float drift = 90;
  /// How unlikely a leap to another tempo is, another metre in the next bar, and a rest without beats.
  float leap = 4.5f;
  float otherMetre = 2.5f;
  float rest = 4;
  /// How much more unlikely each frame of a rest is than one that only has no beat.
  float resting = 0.015f;
  /// How unlikely a bar of each metre is, from 2 to 7.
  std::array<float, 6> metre = {0.2f, 0.15f, 0, 0.6f, 0.5f, 1.2f};
  /// The least chance that is believed in.
  float least = 0.0025f;
  /// Which tempo is likely, and how unlikely others are, by the square of octaves; for a beat.
  double likelyTempo_bpm = 110;
  float usualTempo = 0.25f;
  /// How much what is heard counts.
  float beatWeight = 0.42f;
  float firstWeight = 0.56f;
};

/// Beats, bars and tempo of a whole piece decided together: the most likely course of a pointer that runs
/// through bars (N. Whiteley, A. T. Cemgil, S. Godsill, ISMIR 2006; F. Krebs, S. Böck, G. Widmer, ISMIR
/// 2015), found by Viterbi's algorithm over beats: a state is a frame on which a beat falls, the time since
/// the beat before it, the metre and the place in the bar. Tempo may drift or leap, metres of 2 to 7 change
/// from bar to bar, and the pointer may rest.
std::vector<PlacedBeat> placeBeats(const BeatChances& chances, const MetreModel& model = {});

}  // namespace chispa
