// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/effect/all.h"
#include "core/effect/curves.h"
#include "core/effect/shade.h"

namespace chispa {
namespace {

enum { Across, Every, Fade, Spread, Accent };

/// Beats since the last one that counts, and how strong that one is.
struct Pulse {
  float age;
  float strength;
};

Pulse lastPulse(const EffectInput& in) {
  // A mark that is a hair late still counts as reached.
  constexpr double kHair = 1e-6;
  const double inBar = in.beatInBar + kHair;
  const auto age = static_cast<float>(inBar - std::floor(inBar));
  const float soft = 1 - in.params.real(Accent);
  switch (in.params.choice(Every)) {
    case 1:
      return {static_cast<float>(inBar), 1};
    case 2:
      return inBar < 1 ? Pulse{static_cast<float>(inBar), 0} : Pulse{age, 1};
    default:
      return {age, inBar < 1 ? 1 : soft};
  }
}

CHISPA_CLONES void render(const EffectInput& in, LightBuffer& out) noexcept {
  const auto place = in.place;
  const Pulse pulse = lastPulse(in);
  const float fade = in.params.real(Fade);
  const float spread = in.params.real(Spread);
  shadeCells(in, out, [&](std::size_t i) -> Shade {
    // Light opens from the middle of the axis and reaches its ends `spread` beats later.
    const float age = pulse.age - spread * std::abs(2 * place[i] - 1);
    const float glow = age < 0 ? 0 : pulse.strength * exponential(-3 * age / fade);
    return {1 - within(0, 1, age / fade), glow};
  });
}

}  // namespace

Effect bloom() {
  return cellwise(
      {"bloom", "Bloom", "Opens on the beat and closes again.",
       across(Axis::Along,
              {choiceParam("every", "Opens on",
                           {{"beat", "every beat"}, {"bar", "the first beat"}, {"off", "all but the first"}}),
               numberParam("fade", "Closes within", "beats", 0.1, 8, 1, 0.1),
               numberParam("spread", "Spreads within", "beats", 0, 2, 0, 0.05),
               numberParam("accent", "Accent on the first", "", 0, 1, 0.4)}),
       render, EffectGroup::Music});
}

}  // namespace chispa
