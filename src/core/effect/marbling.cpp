// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/curves.h"
#include "core/effect/all.h"
#include "core/effect/shade.h"

namespace chispa {
namespace {

enum { Grain, Speed, Swirl, Repeats };

CHISPA_MULTIVERSION void render(const EffectInput& in, LightBuffer& out) noexcept {
  const float grain = in.params.real(Grain);
  constexpr auto kTurns = static_cast<float>(0.5 / kPi);
  const float t = static_cast<float>(in.t_s * in.params.number(Speed)) * kTurns;
  const float swirl = in.params.real(Swirl);
  const float repeats = in.params.real(Repeats);
  const float own = chance(in.seed, 1);
  shadeCellsAround(in, out, [&](std::size_t i) -> Shade {
    // Ink that is drawn about twice: sines bend the coordinates that further sines are read at.
    const float x = in.cells.x[i] * grain;
    const float y = in.cells.y[i] * grain;
    const float bx = (x + swirl * sineOfTurns(y * (1.7f * kTurns) + t + own)) * kTurns;
    const float by = (y + swirl * cosineOfTurns(x * (1.3f * kTurns) - t * 0.8f)) * kTurns;
    const float ink = sineOfTurns(bx * 1.9f + t * 0.6f) + sineOfTurns(by * 2.3f - t * 0.5f + own) +
                      sineOfTurns((bx + by) * 1.1f + t * 0.3f);
    return {ink * repeats / 6 + 0.5f, 1};
  });
}

}  // namespace

Effect marbling() {
  return cellwise({
      .key = "marbling",
      .name = "Marbling",
      .summary = "Inks that flow into each other without mixing.",
      .params = {numberParam("grain", "Grain", "", 0.3, 12, 2, 0.1),
                 numberParam("speed", "Flows", "", 0, 5, 0.8, 0.05),
                 numberParam("swirl", "Swirl", "", 0, 3, 0.8, 0.05),
                 numberParam("repeats", "Bands", "×", 0.2, 6, 1, 0.1)},
      .render = render,
      .group = EffectGroup::Textures,
  });
}

}  // namespace chispa
