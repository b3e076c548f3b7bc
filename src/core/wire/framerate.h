// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/show/show.h"

namespace chispa {

/// Frames a second that controllers are sent where nothing else is said, and the most that any is.
inline constexpr int kUsualFramesPerSecond = 40;
inline constexpr int kMaxFramesPerSecond = 120;

/// How often a controller is sent frames: every `divisor` 120ths of a second.
struct FrameRate {
  int divisor = kMaxFramesPerSecond / kUsualFramesPerSecond;

  double framesPerSecond() const { return static_cast<double>(kMaxFramesPerSecond) / divisor; }
  bool operator==(const FrameRate&) const = default;
};

/// As often as the controller says it takes frames, and as the longest of its ports has the time for: the
/// usual rate if it says nothing, never more than 120 a second. Beyond the usual rate, pixels are reckoned to
/// take a bit in 1.25 µs and 0.3 ms between frames, as most chips of one data line do.
FrameRate frameRateOf(const Show& show, const Controller& controller);

}  // namespace chispa
