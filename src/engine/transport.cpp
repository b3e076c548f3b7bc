// SPDX-License-Identifier: GPL-3.0-or-later
#include "engine/transport.h"

namespace chispa::engine {

// All words are sequentially consistent: the state changes a few times a second at most.
void Transport::set(const TransportState& state) noexcept {
  version_.fetch_add(1);
  score_ = state.score.value;
  from_ = state.from.count();
  since_ = state.since.count();
  playing_ = state.playing;
  rate_ = state.rate;
  version_.fetch_add(1);
}

TransportState Transport::get() const noexcept {
  while (true) {
    const std::uint32_t before = version_;
    const TransportState state{ScoreId{score_}, Micros(from_), MonoTime(since_), playing_, rate_};
    if (before % 2 == 0 && version_ == before) return state;
  }
}

}  // namespace chispa::engine
