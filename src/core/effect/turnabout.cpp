// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/curves.h"
#include "core/effect/all.h"
#include "core/effect/shade.h"

namespace chispa {
namespace {

enum { Across, Parts, Every, Fade, Rest };

CHISPA_MULTIVERSION void render(const EffectInput& in, LightBuffer& out) noexcept {
  const auto parts = static_cast<float>(std::lround(in.params.number(Parts)));
  const float fade = in.params.real(Fade);
  const float rest = in.params.real(Rest);
  const double turns = in.beats / in.params.number(Every);
  const float u = fraction(turns);
  const auto turn = static_cast<long>(std::floor(turns));
  // Neighbours take turns: for one stretch the even ones shine, for the next the odd ones.
  const float rise = fade > 0 ? easeBetween(0, fade, u) : 1;
  shadeCells(in, out, [&](std::size_t i) -> Shade {
    const auto part = static_cast<long>(lower(in.place[i] * parts, parts - 1));
    const bool isOn = ((part + turn) & 1) == 0;
    const float glow = isOn ? rest + (1 - rest) * rise : rest + (1 - rest) * (1 - rise);
    return {(part & 1) == 0 ? 0.2f : 0.85f, glow};
  });
}

}  // namespace

Effect turnabout() {
  return cellwise({
      .key = "turnabout",
      .name = "Turnabout",
      .summary = "Neighbouring parts take turns, one colour each.",
      .params = across(Axis::Along, {numberParam("parts", "Parts", "", 2, 240, 8, 1),
                                     numberParam("every", "Change every", "beats", 0.125, 16, 1, 0.125),
                                     numberParam("fade", "Fade", "of a turn", 0, 1, 0.15),
                                     numberParam("rest", "Light at rest", "", 0, 1, 0)}),
      .render = render,
      .group = EffectGroup::Steps,
  });
}

}  // namespace chispa
