// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/effect/all.h"
#include "core/effect/curves.h"
#include "core/effect/shade.h"

namespace chispa {
namespace {

enum { Across, Speed, Grain, Height };

CHISPA_CLONES void render(const EffectInput& in, LightBuffer& out) noexcept {
  const auto up = in.place;
  const auto beside = in.cells.along(Axis::Columns);
  const double grain = in.params.number(Grain);
  const double rise = in.params.number(Speed) * in.t_s;
  const float height = in.params.real(Height);
  const double wide = in.cells.rows > 1 ? grain * 4 : 1;
  shadeCells(in, out, [&](std::size_t i) -> Shade {
    const double x = beside[i] * wide;
    const double y = up[i] * grain - rise;
    const float coarse = noise(in.seed, x, y);
    const float fine = noise(in.seed + 1, x * 2.3, y * 2.1 - rise);
    // Embers flicker at the foot and die towards the top.
    const float heat = (0.65f * coarse + 0.5f * fine) * (1.15f - easeBetween(0, height, up[i]));
    return {heat, easeBetween(0.08f, 0.45f, heat)};
  });
}

}  // namespace

Effect hearth() {
  return cellwise({"hearth", "Hearth", "Embers that flicker and rise.",
                   across(Axis::Rows, {numberParam("speed", "Rises", "times a second", 0.05, 6, 1.2, 0.05),
                                       numberParam("grain", "Grain", "", 1, 30, 5, 0.5),
                                       numberParam("height", "Flame height", "", 0.1, 4, 1.2, 0.05)}),
                   render, EffectGroup::Sparks});
}

}  // namespace chispa
