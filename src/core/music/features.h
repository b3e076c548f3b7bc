// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <array>
#include <cstdint>
#include <map>
#include <memory>
#include <string>
#include <vector>

#include "core/base/bands.h"
#include "core/base/time.h"

namespace chispa {

/// How loud the piece is over time: whole and by band, 0–1, `kRate` values a second.
struct MusicFeatures {
  static constexpr int kRate = 100;

  std::vector<float> level;
  std::array<std::vector<float>, kBands> bands;
  /// Instants at which something new sounds, low, middle and high, in order of time.
  static constexpr std::size_t kRanges = 3;
  std::array<std::vector<Micros>, kRanges> onsets;
  /// How many onsets lie before these: each keeps its number where only the last seconds are known.
  std::array<std::uint64_t, kRanges> onsetsBefore{};

  /// 1 at an onset of `range`, fading to nothing within half a second; 0 before the first.
  float onsetAt(std::size_t range, Micros t) const;
  /// Value of a curve at `t`, interpolated; 0 outside the piece.
  static float at(const std::vector<float>& curve, Micros t);
};

/// Features by the audio path that scores name; empty where a file is missing.
using MusicLibrary = std::map<std::string, std::shared_ptr<const MusicFeatures>>;

/// Bars and beats as a ruler: any instant's position in beats and in bars, counted from the first mark.
class MusicGrid {
 public:
  MusicGrid() = default;
  /// Both in order of time; where there are fewer than two marks, two beats a second and three beats a bar
  /// serve.
  MusicGrid(std::vector<Micros> beats, std::vector<Micros> bars);

  double beatAt(Micros t) const { return position(beats_, t); }
  double barAt(Micros t) const { return position(bars_, t); }
  /// Where bar `bar` begins, whole or not.
  Micros barStart(double bar) const { return instant(bars_, bar); }
  /// Where beat `beat` falls, whole or not.
  Micros beatStart(double beat) const { return instant(beats_, beat); }
  /// How long the beat lasts that `t` lies in.
  Micros beatLength(Micros t) const;
  /// Beats since the bar began, 0 on the down-beat.
  double beatInBarAt(Micros t) const;
  /// Beats of the bar that `t` lies in.
  double beatsOfBarAt(Micros t) const;

  bool operator==(const MusicGrid&) const = default;

 private:
  static double position(const std::vector<Micros>& marks, Micros t);
  static Micros instant(const std::vector<Micros>& marks, double position);

  std::vector<Micros> beats_;
  std::vector<Micros> bars_;
};

}  // namespace chispa
