// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/curves.h"
#include "core/effect/all.h"

namespace chispa {
namespace {

enum { Across, Spread, Place, Level };

void render(const EffectInput& in, LightBuffer& out) noexcept {
  const float spread = in.params.real(Spread);
  const float place = in.params.real(Place);
  const float level = in.params.real(Level);
  for (std::size_t i = 0; i < in.place.size(); ++i) {
    const Rgb c = in.palette.clamped(place + (in.place[i] - 0.5f) * spread);
    out.set(i, {c.r * level, c.g * level, c.b * level}, 1);
  }
}

}  // namespace

Effect hold() {
  return {
      .key = "hold",
      .name = "Hold",
      .summary = "One colour of the palette, or all of it, standing still.",
      .params = across(Axis::Along, {numberParam("spread", "Spread", "of the palette", 0, 1, 0),
                                     numberParam("place", "Colour at", "", 0, 1, 0.7),
                                     numberParam("level", "Level", "", 0, 1, 1)}),
      .render = render,
      .group = EffectGroup::Plain,
  };
}

}  // namespace chispa
