// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <cmath>

#include "core/render/livestate.h"

namespace chispa {

/// The live clock's instant where nothing but a tempo gives the beats.
inline LiveInstant tempoInstant(const Tempo& tempo, Micros t) {
  LiveInstant now;
  now.t = t;
  now.beat = tempo.beatAt(t);
  now.bar = now.beat / LiveState::kBeatsPerBar;
  now.beatInBar = std::fmod(now.beat, LiveState::kBeatsPerBar);
  return now;
}

/// A look that begins at `now`; it is not faded in yet.
inline LookPlay freshPlay(LookId look, std::uint32_t serial, const LiveInstant& now) noexcept {
  LookPlay play;
  play.look = look;
  play.serial = serial;
  play.begun = play.since = now.t;
  play.beatSince = now.beat;
  play.barSince = now.bar;
  return play;
}

/// A look begins at `at`: those that end at that very instant give way to it, rather than to the dark.
inline void noteReplaced(LiveState& state, Micros at) noexcept {
  for (LookPlay& play : state.plays)
    if (play.isEnding && play.presence.begun() == at) play.givesWay = true;
}

}  // namespace chispa
