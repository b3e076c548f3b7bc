// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/show/look.h"

namespace chispa {

/// Something that was played while a score ran: what a recording into it is made of.
struct LiveNote {
  enum class Kind : std::uint8_t { Begun, Faded, Ended, Gone };
  Kind kind = Kind::Begun;
  LookId look;
  std::uint32_t serial = 0;
  ScoreId score;
  /// In the score.
  Micros at{0};
  /// Of Begun and Ended: how long its fade takes, and how.
  Micros fade{0};
  FadeShape shape = FadeShape::Even;
  /// Of Ended: something else came in its place.
  bool givesWay = false;
  /// How present it is at `at`, without its fades: the level of its fader.
  float level = 1;

  bool operator==(const LiveNote&) const = default;
};

}  // namespace chispa
