// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/curves.h"
#include "core/effect/all.h"
#include "core/effect/shade.h"

namespace chispa {
namespace {

enum { Arms, Turns, Twist, Edge, CentreX, CentreY };

CHISPA_MULTIVERSION void render(const EffectInput& in, LightBuffer& out) noexcept {
  const float arms = std::round(in.params.real(Arms));
  const float shift = fraction(in.params.number(Turns) * in.bars);
  const float twist = in.params.real(Twist);
  const float edge = in.params.real(Edge);
  shadeCells(in, out, [&](std::size_t i) -> Shade {
    const float x = in.cells.x[i] - in.params.real(CentreX);
    const float y = in.cells.y[i] - in.params.real(CentreY);
    const float turn = std::atan2(y, x) / static_cast<float>(2 * kPi) - shift + twist * lengthOf(x, y);
    const float arm = fraction(turn * arms);
    // Each arm is a wedge of the palette whose rim is soft by `edge`.
    const float rim = lower(arm, 1 - arm) * 2;
    return {arm, edge > 0 ? easeBetween(0, edge, rim) : 1.f};
  });
}

}  // namespace

Effect vanes() {
  return cellwise({
      .key = "vanes",
      .name = "Vanes",
      .summary = "Arms of light turn about a point; with twist they become spirals.",
      .params = {numberParam("arms", "Arms", "", 1, 24, 4, 1),
                 numberParam("turns", "Turns per bar", "", -8, 8, 0.25, 0.05),
                 numberParam("twist", "Twist", "turns", -4, 4, 0, 0.05),
                 numberParam("edge", "Soft edge", "", 0, 1, 0.25),
                 numberParam("centre-x", "Point, across", "", -1.5, 1.5, 0, 0.05),
                 numberParam("centre-y", "Point, upward", "", -1.5, 1.5, 0, 0.05)},
      .render = render,
      .group = EffectGroup::Flows,
  });
}

}  // namespace chispa
