// SPDX-License-Identifier: GPL-3.0-or-later
#include "engine/transport.h"

namespace chispa::engine {

// All words are sequentially consistent: the state changes a few times a second at most.
void Transport::set(const TransportState& state) noexcept {
  const std::uint64_t next = newest_ + 1;
  Slot& slot = slots_[next % kSlots];
  slot.version = 2 * next + 1;
  slot.score = state.score.value;
  slot.from = state.from.count();
  slot.since = state.since.count();
  slot.playing = state.playing;
  slot.rate = state.rate;
  slot.end = state.end.count();
  slot.then = state.then.value;
  slot.thenFrom = state.thenFrom.count();
  slot.holdsLast = state.holdsLast;
  slot.version = 2 * next;
  newest_ = next;
}

TransportState Transport::get() const noexcept {
  TransportState state;
  constexpr int kMaxLooks = 8;
  for (int look = 0; look < kMaxLooks; ++look) {
    const Slot& slot = slots_[newest_ % kSlots];
    const std::uint64_t before = slot.version;
    state = {ScoreId{slot.score}, Micros(slot.from),  MonoTime(slot.since),  slot.playing,  slot.rate,
             Micros(slot.end),    ScoreId{slot.then}, Micros(slot.thenFrom), slot.holdsLast};
    if (before % 2 == 0 && slot.version == before) break;
  }
  return state;
}

}  // namespace chispa::engine
