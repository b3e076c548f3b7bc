// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/render/livestate.h"

#include <type_traits>
#include <utility>

namespace chispa {

// Snapshots are copied from frame to frame.
static_assert(std::is_trivially_copyable_v<LiveState>);

const LookPlay* LiveState::playOf(LookId look) const {
  const auto found =
      std::find_if(plays.begin(), plays.end(), [look](const LookPlay& play) { return play.look == look; });
  return found == plays.end() ? nullptr : found;
}

LookPlay* LiveState::playOf(LookId look) {
  return const_cast<LookPlay*>(std::as_const(*this).playOf(look));
}

bool LiveState::isLit(LookId look) const {
  const LookPlay* play = playOf(look);
  return play && !play->isEnding;
}

float LiveState::fader(LookId look, float otherwise, Micros t) const {
  for (const auto& one : faders)
    if (one.id == look) return one.level.at(t);
  return otherwise;
}

float LiveState::zoneLevel(ZoneId zone, Micros t) const {
  for (const auto& one : zones)
    if (one.id == zone) return one.level.at(t);
  return 1;
}

const BindingState* LiveState::stateOf(BindingId binding) const {
  for (const BindingState& one : bindings)
    if (one.id == binding) return &one;
  return nullptr;
}

bool LiveState::operator==(const LiveState& other) const {
  return plays == other.plays && faders == other.faders && zones == other.zones &&
         bindings == other.bindings && master == other.master && movesMaster == other.movesMaster &&
         tempo == other.tempo && taps == other.taps && nextSerial == other.nextSerial;
}

}  // namespace chispa
