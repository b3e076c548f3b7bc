// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/live/livestep.h"

#include <algorithm>
#include <cmath>
#include <utility>

#include "core/base/curves.h"
#include "core/live/lookplays.h"
#include "core/show/curve.h"

namespace chispa {
namespace {

constexpr Micros kLongestTap{2'000'000};
/// Closer than this a control has reached a value.
constexpr float kReach = 0.02f;
/// A time code that has not been heard for so long has stopped.
constexpr Micros kTimeCodeGap{500'000};

}  // namespace

float respond(const Binding& binding, float control) noexcept {
  float share = std::clamp(control, 0.f, 1.f);
  switch (binding.response) {
    case BindingResponse::Steps: {
      const auto steps = static_cast<float>(binding.steps);
      share = std::min(std::floor(share * steps), steps - 1) / (steps - 1);
      break;
    }
    case BindingResponse::Eased:
      share = easeBetween(0, 1, share);
      break;
    case BindingResponse::Drawn:
      share = static_cast<float>(curveAt(binding.points, static_cast<double>(share)));
      break;
    case BindingResponse::Even:
      break;
  }
  return static_cast<float>(binding.low + (binding.high - binding.low) * static_cast<double>(share));
}

/// Beats go on from where they were when the music jumps, ends or begins.
void LiveStep::follow() noexcept {
  const LiveInstant before = std::exchange(state_.last, now_);
  if (before.course == now_.course) return;
  for (LookPlay& play : state_.plays) {
    play.beats = play.beatsAt(before);
    play.bars = play.barsAt(before);
    play.elapsed_s = play.elapsedAt(now_.t);
    play.since = now_.t;
    play.beatSince = now_.beat;
    play.barSince = now_.bar;
  }
}

void LiveStep::apply(const LiveEvent& event) noexcept {
  follow();
  switch (event.kind) {
    case LiveEvent::Kind::Control:
      for (const CompiledBinding& bound : live_.bindings)
        if (bound.code != 0 &&
            std::find(event.codes.begin(), event.codes.end(), bound.code) != event.codes.end())
          drive(bound, event.value);
      break;
    case LiveEvent::Kind::Press:
    case LiveEvent::Kind::Release:
      if (const CompiledLook* look = live_.lookOf(LookId{event.id})) {
        const Fades own{look->fadeIn, look->fadeOut, look->fadeShape};
        event.kind == LiveEvent::Kind::Press ? press(*look, look->mode, own) : release(*look, look->mode);
      }
      break;
    case LiveEvent::Kind::Light:
      event.value > 0 ? light(LookId{event.id}) : end(LookId{event.id});
      break;
    case LiveEvent::Kind::Fader:
      if (Eased* fader = levelOf(state_.faders, LookId{event.id}, 1.f))
        fader->set(std::clamp(event.value, 0.f, 1.f));
      break;
    case LiveEvent::Kind::ZoneLevel:
      if (Eased* level = levelOf(state_.zones, ZoneId{event.id}, 1.f))
        level->set(std::clamp(event.value, 0.f, 1.f));
      break;
    case LiveEvent::Kind::Tap:
      tap();
      break;
    case LiveEvent::Kind::Reset:
      reset();
      break;
    case LiveEvent::Kind::TimeCode:
      takeTimeCode(event);
      break;
  }
}

void LiveStep::takeTimeCode(const LiveEvent& event) noexcept {
  for (const CompiledBinding& bound : live_.bindings) {
    if (bound.code == 0 || std::find(event.codes.begin(), event.codes.end(), bound.code) == event.codes.end())
      continue;
    drive(bound, event.value);
    if (bound.binding.target.kind == TargetKind::Follow)
      ask({LiveRequest::Kind::Follow, event.value, event.at - bound.binding.target.at});
    if (BindingState* own = stateOf(bound.binding.id)) {
      own->codeHeard = now_.t;
      own->code = event.at;
    }
  }
}

void LiveStep::missTimeCodes() noexcept {
  for (const CompiledBinding& bound : live_.bindings) {
    const Binding& binding = bound.binding;
    if (binding.source.kind != SourceKind::TimeCode) continue;
    const BindingState* own = state_.stateOf(binding.id);
    if (!own || !own->isPressed || now_.t - own->codeHeard < kTimeCodeGap) continue;
    const Micros at = own->code + (now_.t - own->codeHeard);
    drive(bound, 0);
    if (binding.target.kind == TargetKind::Follow)
      ask({LiveRequest::Kind::Follow, 0, at - binding.target.at});
  }
}

void LiveStep::light(LookId id) noexcept {
  const CompiledLook* look = live_.lookOf(id);
  if (look && !state_.isLit(id)) begin(*look, {look->fadeIn, look->fadeOut, look->fadeShape});
}

void LiveStep::end(LookId id) noexcept {
  if (LookPlay* play = state_.playOf(id)) end(*play);
}

LookPlay* LiveStep::begin(const CompiledLook& look, Fades fades) noexcept {
  LookPlay* play = state_.playOf(look.id);
  if (!play) {
    // The oldest makes room.
    if (state_.plays.isFull()) {
      const std::uint32_t oldest = state_.plays[0].serial;
      state_.plays.removeIf([oldest](const LookPlay& one) { return one.serial == oldest; });
    }
    LookPlay fresh = freshPlay(look.id, state_.nextSerial++, now_);
    for (const CompiledBinding& bound : live_.bindings) {
      const BindingTarget& target = bound.binding.target;
      const BindingState* own = state_.stateOf(bound.binding.id);
      if (target.kind == TargetKind::Speed && target.look == look.id && own && own->isHeard)
        fresh.speed = kFastestLook * static_cast<double>(own->value.at(now_.t));
    }
    state_.plays.tryAdd(fresh);
    play = &state_.plays.back();
  }
  play->isEnding = play->isHeld = play->givesWay = false;
  noteReplaced(state_, now_.t);
  play->fadeOut = fades.out;
  play->fadeShape = fades.shape;
  play->presence.go(1, now_.t, fades.in, fades.shape);
  return play;
}

void LiveStep::end(LookPlay& play) noexcept {
  if (play.isEnding) return;
  play.isEnding = true;
  play.isHeld = false;
  play.presence.go(0, now_.t, play.fadeOut, play.fadeShape);
}

void LiveStep::press(const CompiledLook& look, PadMode mode, Fades fades) noexcept {
  switch (mode) {
    case PadMode::Toggle:
      if (state_.isLit(look.id))
        end(look.id);
      else
        begin(look, fades);
      break;
    case PadMode::OnlyThis:
      for (LookPlay& play : state_.plays)
        if (play.look != look.id) end(play);
      if (!state_.isLit(look.id)) begin(look, fades);
      break;
    case PadMode::Flash:
      fades.in = Micros(0);
      [[fallthrough]];
    case PadMode::Hold:
      begin(look, fades)->isHeld = true;
      break;
  }
}

void LiveStep::release(const CompiledLook& look, PadMode mode) noexcept {
  if (mode != PadMode::Hold && mode != PadMode::Flash) return;
  LookPlay* play = state_.playOf(look.id);
  if (play && play->isHeld) end(*play);
}

BindingState* LiveStep::stateOf(BindingId id) noexcept {
  for (BindingState& one : state_.bindings)
    if (one.id == id) return &one;
  BindingState fresh;
  fresh.id = id;
  // Those of bindings that are gone make room.
  if (state_.bindings.isFull())
    state_.bindings.removeIf([this](const BindingState& one) {
      return std::none_of(live_.bindings.begin(), live_.bindings.end(),
                          [&](const CompiledBinding& bound) { return bound.binding.id == one.id; });
    });
  return state_.bindings.tryAdd(fresh) ? &state_.bindings.back() : nullptr;
}

void LiveStep::drive(const CompiledBinding& bound, float control) noexcept {
  const Binding& binding = bound.binding;
  BindingState* own = stateOf(binding.id);
  if (!own) return;
  const bool wasPressed = own->isPressed;
  own->isPressed = binding.source.isButton() ? control > 0 : control >= 0.5f;
  const bool isEdge = own->isPressed != wasPressed;
  const bool isPress = isEdge && own->isPressed;
  switch (binding.target.kind) {
    case TargetKind::Look:
      if (isEdge) driveLook(binding, own->isPressed);
      break;
    case TargetKind::Blackout:
      if (isEdge) ask({LiveRequest::Kind::Blackout, own->isPressed ? 1.f : 0.f, {}});
      break;
    case TargetKind::Light:
      if (isPress) ask({LiveRequest::Kind::Light, 0, {}});
      break;
    case TargetKind::Play:
      if (isPress) ask({LiveRequest::Kind::Play, 0, {}});
      break;
    case TargetKind::Stop:
      if (isPress) ask({LiveRequest::Kind::Stop, 0, {}});
      break;
    case TargetKind::GoTo:
      if (isPress) ask({LiveRequest::Kind::GoTo, 0, binding.target.at});
      break;
    case TargetKind::SetListOn:
      if (isPress) ask({LiveRequest::Kind::SetListOn, 0, {}});
      break;
    case TargetKind::SetListBack:
      if (isPress) ask({LiveRequest::Kind::SetListBack, 0, {}});
      break;
    case TargetKind::Tempo:
      if (isPress) tap();
      break;
    case TargetKind::Reset:
      if (isPress) reset();
      break;
    case TargetKind::Follow:
      break;
    default:
      driveValue(binding, *own, respond(binding, control));
  }
  // A reset has taken all states away.
  if ((own = stateOf(binding.id))) {
    own->control = control;
    own->isHeard = true;
  }
}

void LiveStep::driveLook(const Binding& binding, bool isPressed) noexcept {
  const CompiledLook* look = live_.lookOf(binding.target.look);
  if (!look) return;
  const PadMode mode = binding.target.hasMode ? binding.target.mode : look->mode;
  if (!isPressed) return release(*look, mode);
  Fades fades{look->fadeIn, look->fadeOut, look->fadeShape};
  if (binding.easeIn.count() > 0 || binding.easeOut.count() > 0)
    fades = {binding.easeIn, binding.easeOut, binding.easeShape};
  press(*look, mode, fades);
}

Eased* LiveStep::valueOf(const BindingTarget& target, BindingState& own) noexcept {
  switch (target.kind) {
    case TargetKind::LookLevel: {
      const CompiledLook* look = live_.lookOf(target.look);
      return look ? levelOf(state_.faders, target.look, look->level) : nullptr;
    }
    case TargetKind::ZoneLevel:
      return target.zone ? levelOf(state_.zones, target.zone, 1.f) : nullptr;
    case TargetKind::Master:
      return &state_.master;
    case TargetKind::Parameter:
    case TargetKind::Speed:
    case TargetKind::Channels:
      return &own.value;
    default:
      return nullptr;
  }
}

bool LiveStep::mayTakeOver(const Binding& binding, BindingState& own, float value,
                           float current) const noexcept {
  if (!binding.takesOver) return true;
  const float before = respond(binding, own.control);
  // What else has moved the target since is to be passed anew.
  if (own.hasPassed && std::abs(before - current) > kReach) own.hasPassed = false;
  if (!own.hasPassed)
    own.hasPassed =
        std::abs(value - current) <= kReach || (own.isHeard && (before - current) * (value - current) <= 0);
  return own.hasPassed;
}

void LiveStep::driveValue(const Binding& binding, BindingState& own, float value) noexcept {
  Eased* eased = valueOf(binding.target, own);
  if (!eased) return;
  const float current = eased->target();
  if (!mayTakeOver(binding, own, value, current)) return;
  eased->go(value, now_.t, value >= current ? binding.easeIn : binding.easeOut, binding.easeShape);
  if (binding.target.kind == TargetKind::Master) state_.movesMaster = true;
  if (binding.target.kind == TargetKind::Speed)
    setSpeed(binding.target.look, kFastestLook * static_cast<double>(value));
}

void LiveStep::setSpeed(LookId look, double speed) noexcept {
  LookPlay* play = state_.playOf(look);
  if (!play) return;
  play->beats = play->beatsAt(now_);
  play->bars = play->barsAt(now_);
  play->elapsed_s = play->elapsedAt(now_.t);
  play->since = now_.t;
  play->beatSince = now_.beat;
  play->barSince = now_.bar;
  play->speed = speed;
}

/// The tempo is the mean of the last taps that belong together; the beat falls on the last of them.
void LiveStep::tap() noexcept {
  auto& taps = state_.taps;
  if (!taps.isEmpty() && now_.t - taps.back() > kLongestTap) taps.clear();
  if (taps.isFull()) {
    const Micros first = taps[0];
    taps.removeIf([first](Micros t) { return t == first; });
  }
  taps.tryAdd(now_.t);
  if (taps.size() < 2 || taps.back() == taps[0]) return;
  state_.tempo.beat = std::round(state_.tempo.beatAt(now_.t));
  state_.tempo.since = now_.t;
  state_.tempo.beat_s = seconds(taps.back() - taps[0]) / static_cast<double>(taps.size() - 1);
}

void LiveStep::reset() noexcept {
  for (LookPlay& play : state_.plays) end(play);
  state_.faders.clear();
  state_.zones.clear();
  state_.bindings.clear();
}

void LiveStep::advance(std::span<const DeskValues> desk) noexcept {
  follow();
  missTimeCodes();
  for (const CompiledBinding& bound : live_.bindings) {
    const BindingSource& source = bound.binding.source;
    float value = static_cast<float>(source.value);
    if (bound.universe >= 0) {
      const DeskValues& from = desk[static_cast<std::size_t>(bound.universe)];
      if (!from.isHeard) continue;
      value =
          static_cast<float>(from.values[static_cast<std::size_t>(std::clamp(source.number, 1, 512) - 1)]) /
          255.f;
    } else if (source.kind != SourceKind::Fixed) {
      continue;
    }
    const BindingState* own = state_.stateOf(bound.binding.id);
    if (!own || !own->isHeard || own->control != value) drive(bound, value);
  }
  // Looks that follow are added behind those that are looked at here.
  for (std::size_t i = 0; i < state_.plays.size(); ++i) {
    LookPlay& play = state_.plays[i];
    const CompiledLook* look = live_.lookOf(play.look);
    if (!look || play.isEnding || look->end == LookEnd::Stay ||
        !momentOf(*look, play.elapsedAt(now_.t)).isOver)
      continue;
    const LookId next = look->end == LookEnd::GoOn ? look->next : LookId{};
    end(play);
    if (next && next != look->id) light(next);
  }
  state_.plays.removeIf([this](const LookPlay& play) {
    return !live_.lookOf(play.look) || (play.isEnding && play.presence.hasArrived(now_.t));
  });
  if (state_.movesMaster) {
    ask({LiveRequest::Kind::Master, state_.master.at(now_.t), {}});
    if (state_.master.hasArrived(now_.t)) state_.movesMaster = false;
  }
}

}  // namespace chispa
