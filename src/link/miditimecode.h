// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <array>
#include <cstdint>
#include <optional>
#include <span>

#include "core/base/time.h"

namespace chispa::link {

/// Where another program's or a recorder's clock stands.
struct TimeCode {
  /// Real time since 00:00:00:00, not the label's: of 29.97 frames a second the dropped numbers are counted
  /// out.
  Micros at{0};
  /// It runs forwards; else it was set there, or runs backwards.
  bool runs = false;

  bool operator==(const TimeCode&) const = default;
};

/// Puts MIDI time code together (MIDI 1.0 Detailed Specification, "MIDI Time Code": quarter frames and the
/// full message). For one thread.
class TimeCodeReader {
 public:
  /// What is known with this message and was not before it: once for every eight quarter frames in a row, two
  /// frames apart, and at each full message. Pieces out of their order, and times that there are not, say
  /// nothing.
  std::optional<TimeCode> read(std::span<const std::uint8_t> message);

 private:
  std::optional<TimeCode> readPiece(std::uint8_t data);

  static constexpr int kPieces = 8;
  std::array<std::uint8_t, kPieces> pieces_{};
  std::optional<int> lastPiece_;
  int direction_ = 0;
  /// Pieces in a row, in one direction.
  int inRow_ = 0;
};

}  // namespace chispa::link
