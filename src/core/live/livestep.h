// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <span>

#include "core/render/compiledlive.h"
#include "core/render/livestate.h"

namespace chispa {

/// What events and time do to the live state. Everything here is real-time safe and a function of its
/// arguments alone. What is not light is asked for in `requests`; what finds no room there is dropped.
class LiveStep {
 public:
  LiveStep(const CompiledLive& live, LiveState& state, const LiveInstant& now, LiveRequests& requests)
      : live_(live), state_(state), now_(now), requests_(requests) {}

  void apply(const LiveEvent& event) noexcept;
  /// Once a frame, after its events: looks that have gone through their steps, or faded out, end; desks and
  /// fixed values drive what is bound to them. `desk` has a place for each of live.deskUniverses.
  void advance(std::span<const DeskValues> desk) noexcept;

  /// Lights a look at once or with its fade; nothing happens if it is lit.
  void light(LookId look) noexcept;
  void end(LookId look) noexcept;

 private:
  /// How a pad lights and ends a look.
  struct Fades {
    Micros in{0};
    Micros out{0};
    FadeShape shape = FadeShape::Even;
  };

  void follow() noexcept;
  void press(const CompiledLook& look, PadMode mode, Fades fades) noexcept;
  void release(const CompiledLook& look, PadMode mode) noexcept;
  LookPlay* begin(const CompiledLook& look, Fades fades) noexcept;
  void end(LookPlay& play) noexcept;
  void drive(const CompiledBinding& bound, float control) noexcept;
  void takeTimeCode(const LiveEvent& event) noexcept;
  /// A time code that says nothing any more stands where it should have come to.
  void missTimeCodes() noexcept;
  void driveLook(const Binding& binding, bool isPressed) noexcept;
  void driveValue(const Binding& binding, BindingState& own, float value) noexcept;
  bool mayTakeOver(const Binding& binding, BindingState& own, float value, float current) const noexcept;
  void setSpeed(LookId look, double speed) noexcept;
  void tap() noexcept;
  void reset() noexcept;
  void ask(LiveRequest request) noexcept {
    request.asked = now_.t;
    requests_.tryAdd(request);
  }
  /// The eased value that `target` has, or null if it is none of the state's.
  Eased* valueOf(const BindingTarget& target, BindingState& own) noexcept;
  BindingState* stateOf(BindingId id) noexcept;

  const CompiledLive& live_;
  LiveState& state_;
  const LiveInstant& now_;
  LiveRequests& requests_;
};

/// 0–1 for a control at `control` 0–1: its response, and the range that it is given.
float respond(const Binding& binding, float control) noexcept;

/// How fast looks can be made to run: 1 for a control at a quarter.
inline constexpr double kFastestLook = 4;

}  // namespace chispa
