// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/curves.h"
#include "core/effect/all.h"
#include "core/effect/edges.h"
#include "core/effect/shade.h"

namespace chispa {
namespace {

enum { Across, Every, Fade, Spread, Accent };

/// Beats before its own that it begins to open, so that it is open as the beat falls.
constexpr float kOpens = 0.18f;

/// A beat that counts: beats since it, less than 0 before it, and how strong it is.
struct Pulse {
  float age;
  float strength;
};

/// The next one that counts and the last two: while one closes outside, the next opens in the middle.
std::array<Pulse, 3> pulsesOf(const EffectInput& in) {
  // A mark that is a hair late still counts as reached.
  constexpr double kHair = 1e-6;
  const double inBar = in.beatInBar + kHair;
  const auto age = static_cast<float>(inBar - std::floor(inBar));
  const auto ofBar = static_cast<float>(inBar);
  const auto bar = static_cast<float>(in.beatsOfBar);
  const bool isFirst = inBar < 1;
  const bool isSecond = !isFirst && inBar < 2;
  const bool isLast = ofBar + 1.001f >= bar;
  const float soft = 1 - in.params.real(Accent);
  switch (in.params.choice(Every)) {
    case 1:
      return {Pulse{ofBar - bar, 1}, Pulse{ofBar, 1}, Pulse{ofBar + bar, 1}};
    case 2:
      return {Pulse{age - 1, isLast ? 0.f : 1.f}, Pulse{age, isFirst ? 0.f : 1.f},
              Pulse{age + 1, isSecond ? 0.f : 1.f}};
    default:
      return {Pulse{age - 1, isLast ? 1 : soft}, Pulse{age, isFirst ? 1 : soft},
              Pulse{age + 1, isSecond ? 1 : soft}};
  }
}

CHISPA_MULTIVERSION void render(const EffectInput& in, LightBuffer& out) noexcept {
  const auto place = in.place;
  const std::array<Pulse, 3> pulses = pulsesOf(in);
  const float fade = in.params.real(Fade);
  const float spread = in.params.real(Spread);
  // On a face it opens from the face's middle, along any other axis from the middle of that.
  const bool isFace = in.cells.rows > 1 && in.params.axis(0) == Axis::Along;
  const float corner = lengthOf(in.cells.halfWidth, in.cells.halfHeight);
  shadeCells(in, out, [&](std::size_t i) -> Shade {
    const float off = isFace ? lengthOf(in.cells.x[i], in.cells.y[i]) / corner : std::abs(2 * place[i] - 1);
    float glow = 0;
#pragma GCC unroll 3
    for (const Pulse& pulse : pulses) {
      const float age = pulse.age - spread * off;
      const float opened = within(0, 1, 1 + age / kOpens);
      const float own = pulse.strength * opened * exponential(-3 * higher(0, age) / fade);
      glow = higher(glow, own);
    }
    // Each place keeps its hue while it opens and closes.
    return {off, glow};
  });
}

}  // namespace

Effect bloom() {
  return cellwise({
      .key = "bloom",
      .name = "Bloom",
      .summary = "Opens from the middle on the beat, and closes again.",
      .params = across(
          Axis::Along,
          {choiceParam("every", "Opens on",
                       {{"beat", "every beat"}, {"bar", "the first beat"}, {"off", "all but the first"}}),
           numberParam("fade", "Closes within", "beats", 0.1, 8, 1, 0.1),
           numberParam("spread", "Spreads within", "beats", 0, 2, 0.4, 0.05),
           numberParam("accent", "Accent on the first", "", 0, 1, 0.4)}),
      .render = render,
      .group = EffectGroup::Music,
  });
}

}  // namespace chispa
