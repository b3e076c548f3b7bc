// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <array>
#include <cstdint>

#include "core/base/id.h"
#include "core/base/inlinelist.h"
#include "core/render/eased.h"
#include "core/render/fade.h"
#include "core/show/look.h"

namespace chispa {

/// An instant of the live clock: steady, in step with the score while one plays, and never going back.
struct LiveInstant {
  Micros t{0};
  /// The music's beat and bar at `t`, or those of the tapped tempo where nothing plays.
  double beat = 0;
  double bar = 0;
  double beatInBar = 0;
  /// Another number after each jump of the beats: another score, another place in it, none any more.
  std::uint32_t course = 0;
};

/// A look that is lit, or fading out.
struct LookPlay {
  LookId look;
  /// Tells plays of one look from each other.
  std::uint32_t serial = 0;
  Micros begun{0};
  /// 0–1: how far it is faded in.
  Eased presence;
  Micros fadeOut{0};
  FadeShape fadeShape = FadeShape::Even;
  /// It ends when its pad is let go.
  bool isHeld = false;
  bool isEnding = false;
  /// It ends because another takes its place: what that takes it gives.
  bool givesWay = false;
  /// Its own time, beats and bars at `since`, and how fast they run from there.
  Micros since{0};
  double elapsed_s = 0;
  double beats = 0;
  double bars = 0;
  double beatSince = 0;
  double barSince = 0;
  double speed = 1;

  /// How much of its light is there, 0–1.
  float shareAt(Micros t, Evenness fades) const { return fadedLight(fades, givesWay, presence.at(t)); }
  double elapsedAt(Micros t) const { return elapsed_s + speed * seconds(t - since); }
  double beatsAt(const LiveInstant& now) const { return beats + speed * (now.beat - beatSince); }
  double barsAt(const LiveInstant& now) const { return bars + speed * (now.bar - barSince); }

  bool operator==(const LookPlay&) const = default;
};

/// A value of something that has an id.
template <class IdType>
struct LiveLevel {
  IdType id;
  Eased level{1};

  bool operator==(const LiveLevel&) const = default;
};

/// What a binding's control says.
struct BindingState {
  BindingId id;
  /// The control's own value, 0–1.
  float control = 0;
  /// The value for the target, 0–1 of its range.
  Eased value;
  bool isPressed = false;
  /// A control that is to pass its target's value first has done so.
  bool hasPassed = false;
  /// `control` was heard at least once.
  bool isHeard = false;
  /// Of a time code: when it was heard last, and where it was.
  Micros codeHeard{0};
  Micros code{0};

  bool operator==(const BindingState&) const = default;
};

/// The tempo that looks run at while no score plays.
struct Tempo {
  Micros since{0};
  double beat = 0;
  double beat_s = 0.5;

  double beatAt(Micros t) const { return beat + seconds(t - since) / beat_s; }
  bool operator==(const Tempo&) const = default;
};

/// All that is played by hand at one instant: a plain value. Light is a function of the compiled show, this
/// and the time; the same events at the same times give the same state. Real-time safe throughout.
struct LiveState {
  static constexpr std::size_t kMaxPlays = 32;
  static constexpr std::size_t kMaxLevels = 256;
  static constexpr std::size_t kMaxBindings = 512;
  static constexpr std::size_t kMaxTaps = 8;
  static constexpr int kBeatsPerBar = 4;

  /// The earliest first: later ones lie on top.
  InlineList<LookPlay, kMaxPlays> plays;
  InlineList<LiveLevel<LookId>, kMaxLevels> faders;
  InlineList<LiveLevel<ZoneId>, kMaxLevels> zones;
  InlineList<BindingState, kMaxBindings> bindings;
  Eased master{1};
  /// The master is moved by a binding and on its way.
  bool movesMaster = false;
  Tempo tempo;
  InlineList<Micros, kMaxTaps> taps;
  std::uint32_t nextSerial = 1;
  /// The course of beats that the plays' own are measured in.
  LiveInstant last;

  const LookPlay* playOf(LookId look) const;
  LookPlay* playOf(LookId look);
  /// Lit, and not on its way out.
  bool isLit(LookId look) const;
  float fader(LookId look, float otherwise, Micros t) const;
  float zoneLevel(ZoneId zone, Micros t) const;
  const BindingState* stateOf(BindingId binding) const;

  bool operator==(const LiveState& other) const;
};

/// The fader of `id` in `levels`, added at `start` if it is not there; null if there is no room.
template <class IdType, std::size_t kMax>
Eased* levelOf(InlineList<LiveLevel<IdType>, kMax>& levels, IdType id, float start) {
  for (auto& one : levels)
    if (one.id == id) return &one.level;
  return levels.tryAdd({id, Eased(start)}) ? &levels.back().level : nullptr;
}

/// A desk's universe as it is at an instant.
struct DeskValues {
  std::array<std::uint8_t, 512> values{};
  /// Anything was heard since listening began.
  bool isHeard = false;
  /// The stream has stopped, at `lostAt`.
  bool isLost = false;
  Micros lostAt{0};
};

}  // namespace chispa
