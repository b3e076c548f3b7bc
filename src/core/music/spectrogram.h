// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <cstdint>
#include <span>
#include <vector>

#include "core/music/features.h"

namespace chispa {

/// How loud a piece is at each pitch over time, for pictures: MusicFeatures::kRate columns a second of kRows
/// values from about 40 Hz up to 16 kHz, as wide as those of bandEdges_hz(). 0 is −80 dB or less, 255 as loud
/// as it can be.
class Spectrogram {
 public:
  static constexpr int kRows = 48;

  void append(std::span<const float> levels_db);
  std::size_t columns() const { return values_.size() / kRows; }
  /// The rows of one column, from low to high.
  std::span<const std::uint8_t> column(std::size_t number) const {
    return std::span(values_).subspan(number * kRows, kRows);
  }
  /// Loudest between two instants, the second not in it; 0 outside the piece. Long stretches are looked at in
  /// steps.
  std::uint8_t loudest(int row, Micros from, Micros to) const;
  /// Where `hz` lies among the rows, from 0 at the lowest edge to kRows at the highest; held within them.
  static double rowOf(double hz);

 private:
  std::vector<std::uint8_t> values_;
};

}  // namespace chispa
