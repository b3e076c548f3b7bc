// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/curves.h"
#include "core/effect/all.h"
#include "core/effect/pace.h"
#include "core/effect/shade.h"

namespace chispa {
namespace {

enum { Across, Waves, Passes, Depth, Sharpness, Speed };

CHISPA_MULTIVERSION void render(const EffectInput& in, LightBuffer& out) noexcept {
  const auto place = in.place;
  const float waves = in.params.real(Waves);
  const float depth = in.params.real(Depth);
  const float sharpness = in.params.real(Sharpness);
  const float shift =
      fraction(paceOf(in, Speed, in.params.number(Waves), {in.params.number(Passes) * in.bars}).done);
  shadeCells(in, out, [&](std::size_t i) -> Shade {
    const float wave = within(0, 1, 0.5f + 0.5f * cosineOfTurns(place[i] * waves - shift));
    const float lift = powerOf(wave, sharpness);
    return {lift, 1 - depth + depth * lift};
  });
}

}  // namespace

Effect swell() {
  return cellwise({
      .key = "swell",
      .name = "Swell",
      .summary = "Waves of light roll through; crests take the palette's end.",
      .params = across(Axis::Along, withPace({numberParam("waves", "Waves", "", 0, 24, 2, 0.5),
                                              numberParam("passes", "Waves per bar", "", -8, 8, 1, 0.05),
                                              numberParam("depth", "Depth", "", 0, 1, 0.9),
                                              numberParam("sharpness", "Sharpness", "", 0.3, 12, 1.6, 0.1)})),
      .render = render,
      .group = EffectGroup::Flows,
  });
}

}  // namespace chispa
