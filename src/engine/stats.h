// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <array>
#include <atomic>
#include <cstdint>

#include "engine/clock.h"
#include "engine/realtime.h"

namespace chispa::engine {

/// How late frames began, counted in steps of 10 µs up to 20 ms. Written by the output thread, read by any.
class LatenessHistogram {
 public:
  void add(MonoTime late) noexcept;
  /// Lateness in ms that `share` 0–1 of all frames stayed within; 0 if there were none.
  double percentile_ms(double share) const;
  double most_ms() const { return static_cast<double>(most_ns_.load(std::memory_order_relaxed)) * 1e-6; }

 private:
  static constexpr int kStep_us = 10;
  static constexpr std::size_t kSteps = 2000;
  std::array<std::atomic<std::uint32_t>, kSteps + 1> counts_{};
  std::atomic<std::int64_t> most_ns_{0};
};

/// What the output thread has done since it began.
struct OutputStats {
  std::atomic<std::uint64_t> frames{0};
  /// Periods skipped because a frame took too long.
  std::atomic<std::uint64_t> skipped{0};
  std::atomic<std::int64_t> lastFrameTook_ns{0};
  LatenessHistogram lateness;
  /// How long after a frame's instant its last packet had left.
  LatenessHistogram leaving;
  RealtimeGrants grants;
};

}  // namespace chispa::engine
