// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <array>
#include <cstdint>
#include <span>
#include <vector>

#include "core/base/time.h"
#include "core/wire/dither.h"

namespace chispa::engine {

/// Which light a universe shows: of which instant of the score, in which frame of dithering.
struct ShownFrame {
  Micros position{0};
  DitherFrame dither;
};

/// Finds universes whose light does not change, though dithering changes their values from frame to frame,
/// and holds their values still: then nothing needs to be sent. A value that dithering moves by one is held
/// only if nobody sees the step: from kSteadyValue on it is less than what LEDs of one reel differ by anyway.
/// Dimmer light goes on being dithered. Output thread, or the helper that works at the line; allocates
/// nothing once made.
class SteadyLight {
 public:
  /// A step of one from here on changes light by a tenth at most, with the response of a usual strip (2.2).
  static constexpr std::uint8_t kSteadyValue = 22;

  SteadyLight() = default;
  explicit SteadyLight(std::size_t universes);

  /// Looks at the values of a frame (512 a universe) and puts what is held in their place.
  void settle(std::span<std::uint8_t> values, const ShownFrame& frame) noexcept;
  /// Puts what is held in the place of values that are not taken.
  void keep(std::span<std::uint8_t> values) const noexcept;
  /// True if all universes are held.
  bool isWhole() const noexcept { return held_ == universes_.size(); }
  /// What universe `i` shows: `frame`, or the one that it was held at.
  ShownFrame shownBy(std::size_t i, const ShownFrame& frame) const noexcept {
    return universes_[i].isHeld ? universes_[i].heldAt : frame;
  }

 private:
  struct Universe {
    /// What its values were in each frame of the period.
    std::array<std::uint64_t, kLongestDither> marks{};
    /// Frames since it was found to be as it had been a period before; 0 while it moves.
    std::uint8_t steady = 0;
    /// Its steps would be seen: they are of dim light, or more than dithering makes.
    bool isSeen = false;
    bool isHeld = false;
    ShownFrame heldAt;
  };
  void settleOne(Universe& universe, std::span<std::uint8_t> values, std::span<std::uint8_t> shown,
                 const ShownFrame& frame) noexcept;

  std::vector<Universe> universes_;
  /// What is held, or what the first frame of the period that is watched was.
  std::vector<std::uint8_t> shown_;
  std::uint8_t period_ = 0;
  std::size_t held_ = 0;
};

}  // namespace chispa::engine
