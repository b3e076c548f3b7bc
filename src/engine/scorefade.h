// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <algorithm>
#include <cstdint>

#include "core/base/frame.h"
#include "core/base/id.h"
#include "core/base/time.h"
#include "engine/clock.h"

namespace chispa::engine {

/// How what plays fades in over the light of what played before it, which stands still meanwhile. Output
/// thread.
struct ScoreFade {
  /// What the last frame showed of which score.
  ScoreId shown = {};
  Micros shownAt{0};
  MonoTime begun{0};
  /// 0 while nothing fades.
  MonoTime length{0};
  /// Which order to fade was followed last.
  std::uint8_t followed = 0;
};

/// An order to fade into a score when it plays next.
struct FadeOrder {
  ScoreId score = {};
  std::chrono::milliseconds length{0};
  /// Tells orders apart; never 0.
  std::uint8_t number = 0;

  std::uint64_t packed() const {
    constexpr std::int64_t kMost_ms = (1 << 24) - 1;
    const auto ms = static_cast<std::uint64_t>(std::clamp<std::int64_t>(length.count(), 0, kMost_ms));
    return ms << 40 | static_cast<std::uint64_t>(number) << 32 | score.value;
  }
  static FadeOrder of(std::uint64_t packed) {
    return {ScoreId{static_cast<std::uint32_t>(packed)}, std::chrono::milliseconds(packed >> 40),
            static_cast<std::uint8_t>(packed >> 32 & 255)};
  }
};

}  // namespace chispa::engine
