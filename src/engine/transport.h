// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <atomic>
#include <cstdint>

#include "core/base/id.h"
#include "core/base/time.h"
#include "engine/clock.h"

namespace chispa::engine {

/// Where in which score the player is, as a line through time: position = from + rate · (now − since), while playing.
struct TransportState {
  ScoreId score;
  Micros from{0};
  MonoTime since{0};
  bool playing = false;
  double rate = 1;

  Micros positionAt(MonoTime now) const {
    if (!playing || now < since) return from;
    const auto passed = std::chrono::duration_cast<Micros>(now - since);
    return from + (rate == 1 ? passed : Micros(static_cast<std::int64_t>(static_cast<double>(passed.count()) * rate)));
  }
};

/// Hands the transport's state from one writer to any readers without locks: a sequence lock over atomic words.
class Transport {
 public:
  /// One thread at a time (the player's).
  void set(const TransportState& state) noexcept;
  /// Any thread; never waits longer than a write takes.
  TransportState get() const noexcept;

 private:
  std::atomic<std::uint32_t> version_{0};
  std::atomic<std::uint32_t> score_{0};
  std::atomic<std::int64_t> from_{0};
  std::atomic<std::int64_t> since_{0};
  std::atomic<bool> playing_{false};
  std::atomic<double> rate_{1};
};

}  // namespace chispa::engine
