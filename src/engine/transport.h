// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <array>
#include <atomic>
#include <cstdint>

#include "core/base/id.h"
#include "core/base/time.h"
#include "engine/clock.h"

namespace chispa::engine {

/// Where in which score the player is, as a line through time: position = from + rate · (now − since), while
/// playing.
struct TransportState {
  ScoreId score;
  Micros from{0};
  MonoTime since{0};
  bool playing = false;
  double rate = 1;
  /// Where the part that plays ends, and what goes on from there by itself: a score and the place in it. 0:
  /// nothing does.
  Micros end{0};
  ScoreId then = {};
  Micros thenFrom{0};
  /// Where nothing goes on, its last light stays.
  bool holdsLast = false;

  /// The state with what has gone on by itself since: whoever shows light meets no gap, however late the
  /// writer is. A part that plays again wraps once.
  TransportState resolvedAt(MonoTime now) const {
    if (!playing || end.count() == 0 || (!then && !holdsLast)) return *this;
    const Micros beyond = positionAt(now) - end;
    if (beyond < Micros(0)) return *this;
    if (!then) return {score, end - Micros(1), now, false, rate};
    return {then, thenFrom + beyond, now, true, rate};
  }
  Micros positionAt(MonoTime now) const {
    if (!playing || now < since) return from;
    const auto passed = std::chrono::duration_cast<Micros>(now - since);
    return from + (rate == 1 ? passed
                             : Micros(static_cast<std::int64_t>(static_cast<double>(passed.count()) * rate)));
  }
  bool operator==(const TransportState&) const = default;
};

/// Hands the transport's state from one writer to any readers without locks. The writer fills the slot after
/// the newest and then names it the newest; a reader never meets a slot that is being written unless it was
/// held up for as many writes as there are slots. It then looks again, a bounded number of times: it never
/// waits for a writer that it has pre-empted.
class Transport {
 public:
  /// One thread at a time (the player's).
  void set(const TransportState& state) noexcept;
  /// Any thread; wait-free.
  TransportState get() const noexcept;

 private:
  struct Slot {
    /// Number of the write that filled it; odd while it is being filled.
    std::atomic<std::uint64_t> version{0};
    std::atomic<std::uint32_t> score{0};
    std::atomic<std::int64_t> from{0};
    std::atomic<std::int64_t> since{0};
    std::atomic<bool> playing{false};
    std::atomic<double> rate{1};
    std::atomic<std::int64_t> end{0};
    std::atomic<std::uint32_t> then{0};
    std::atomic<std::int64_t> thenFrom{0};
    std::atomic<bool> holdsLast{false};
  };
  static constexpr std::size_t kSlots = 16;

  std::array<Slot, kSlots> slots_;
  std::atomic<std::uint64_t> newest_{0};
};

}  // namespace chispa::engine
