// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/curves.h"
#include "core/effect/all.h"
#include "core/effect/pace.h"

namespace chispa {
namespace {

enum { Across, Threads, Passes, Width, Speed };

/// How much of a thread of width `width` covers place `u` of its repeat.
float chainAt(float u, float width) {
  const float away = std::abs(u - 0.5f);
  return 1 - easeBetween(width * 0.25f, width * 0.5f, away);
}

void render(const EffectInput& in, LightBuffer& out) noexcept {
  const auto place = in.place;
  const auto other = in.cells.along(Axis::Rows);
  const float threads = in.params.real(Threads);
  const float width = in.params.real(Width);
  const double shift =
      paceOf(in, Speed, in.params.number(Threads), {in.params.number(Passes) * in.bars}).done;
  for (std::size_t i = 0; i < place.size(); ++i) {
    const float there = chainAt(fraction(place[i] * threads + other[i] - shift), width);
    const float back = chainAt(fraction(place[i] * threads - other[i] + shift), width);
    const Rgb warp = in.palette.clamped(0.9f);
    const Rgb weft = in.palette.clamped(0.35f);
    const float sum = there + back;
    const float share = sum > 0 ? there / sum : 0;
    out.set(i,
            {weft.r + (warp.r - weft.r) * share, weft.g + (warp.g - weft.g) * share,
             weft.b + (warp.b - weft.b) * share},
            lower(sum, 1.f));
  }
}

}  // namespace

Effect weave() {
  return {
      .key = "weave",
      .name = "Weave",
      .summary = "Two sets of threads cross each other in opposite directions.",
      .params = across(Axis::Along, withPace({numberParam("threads", "Threads", "", 1, 40, 5, 1),
                                              numberParam("passes", "Threads per bar", "", -8, 8, 1, 0.05),
                                              numberParam("width", "Width", "of a gap", 0.05, 1, 0.5)})),
      .render = render,
      .group = EffectGroup::Flows,
  };
}

}  // namespace chispa
