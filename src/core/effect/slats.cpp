// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/curves.h"
#include "core/effect/all.h"
#include "core/effect/shade.h"

namespace chispa {
namespace {

enum { Across, Slats, Opens, Every, Stagger };

constexpr float kRim = 0.15f;

CHISPA_MULTIVERSION void render(const EffectInput& in, LightBuffer& out) noexcept {
  const float slats = std::round(in.params.real(Slats));
  const float most = in.params.real(Opens);
  const float stagger = in.params.real(Stagger);
  const float begun = fraction(in.bars / in.params.number(Every));
  shadeCells(in, out, [&](std::size_t i) -> Shade {
    const float at = in.place[i] * slats;
    const float which = std::floor(at);
    // A slat opens and closes about its own middle, a little later than its neighbour.
    const float open = most * (0.5f - 0.5f * cosineOfTurns(begun - which * stagger / slats));
    const float off = 2 * std::abs(at - which - 0.5f);
    return {(which + 0.5f) / slats, easeBetween(off - kRim, off, open * (1 + kRim) - kRim)};
  });
}

}  // namespace

Effect slats() {
  return cellwise({
      .key = "slats",
      .name = "Slats",
      .summary = "Bars that open and close like a shutter, one after the other.",
      .params = across(Axis::Columns, {numberParam("slats", "Bars", "", 1, 60, 6, 1),
                                       numberParam("opens", "Open", "of a bar", 0.05, 1.2, 1),
                                       numberParam("every", "Once in", "bars", 0.125, 16, 1, 0.125),
                                       numberParam("stagger", "Stagger", "turns", -4, 4, 0.5, 0.05)}),
      .render = render,
      .group = EffectGroup::Flows,
  });
}

}  // namespace chispa
