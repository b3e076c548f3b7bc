// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/effect/all.h"
#include "core/effect/curves.h"
#include "core/effect/shade.h"

namespace chispa {
namespace {

enum { Across, Value, Edge, Peak, Colours };

CHISPA_CLONES void render(const EffectInput& in, LightBuffer& out) noexcept {
  const float value = in.params.real(Value);
  const float edge = in.params.real(Edge);
  const float peak = in.params.real(Peak);
  const bool isWhole = in.params.choice(Colours) == 1;
  shadeCells(in, out, [&](std::size_t i) -> Shade {
    const float at = in.place[i];
    const float bar = 1 - easeBetween(value, value + edge, at);
    const float tip = peak > 0 ? 1 - easeBetween(peak * 0.5f, peak, std::abs(at - value)) : 0;
    return {isWhole ? value : at, higher(bar * (peak > 0 ? 0.5f : 1.f), tip)};
  });
}

}  // namespace

Effect gauge() {
  return cellwise(
      {"gauge", "Gauge", "A bar as long as its value: draw the value as a curve, or let the music drive it.",
       across(Axis::Rows,
              {numberParam("value", "Value", "", 0, 1, 0.6),
               numberParam("edge", "Soft edge", "", 0.001, 1, 0.05),
               numberParam("peak", "Bright tip", "", 0, 0.5, 0),
               choiceParam("colours", "Colours", {{"place", "by place"}, {"value", "by value"}})}),
       render, EffectGroup::Steps});
}

}  // namespace chispa
