// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <string>
#include <vector>

#include "core/base/time.h"

namespace chispa::demo {

/// One note: where it begins and how long it lasts, in beats from the start, and its pitch as a MIDI number.
struct Note {
  double beat = 0;
  double beats = 1;
  int pitch = 60;
};

/// A part of the piece, in bars from the start.
struct Section {
  std::string name;
  int firstBar = 0;
  int bars = 0;
};

/// "The Slow Round": a waltz of our own, written for the demo.
inline constexpr double kBeat_s = 60.0 / 132;
inline constexpr int kBeatsPerBar = 3;
inline constexpr int kBars = 56;
/// Silence before the first beat.
inline constexpr double kLeadIn_s = 0.25;
inline constexpr double kLength_s = kLeadIn_s + kBars * kBeatsPerBar * kBeat_s + 2.5;

const std::vector<Section>& sections();
std::vector<Note> melody();
/// A second voice of bells, in the last round.
std::vector<Note> bells();
/// The chord of each bar, as MIDI numbers, its bass note first.
std::vector<std::vector<int>> chords();

/// Instant of a beat, counted from 0.
Micros beatInstant(int beat);
Micros barInstant(int bar);

}  // namespace chispa::demo
