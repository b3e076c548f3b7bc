// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/curves.h"
#include "core/effect/all.h"
#include "core/effect/shade.h"

namespace chispa {
namespace {

enum { Density, Life, Rise };

CHISPA_MULTIVERSION void render(const EffectInput& in, LightBuffer& out) noexcept {
  const float density = in.params.real(Density);
  const float rise = in.params.real(Rise);
  const double clock = in.t_s / in.params.number(Life);
  const auto turns = static_cast<std::uint32_t>(static_cast<std::int64_t>(std::floor(clock)));
  const float begun = fraction(clock);
  shadeCells(in, out, [&](std::size_t i) -> Shade {
    // Each cell has its own clock; in each of its turns it lights up, or not, in one colour.
    const std::uint32_t own = mixBits32(in.seed ^ static_cast<std::uint32_t>(i) * kGoldenBits32);
    const float u = begun + unitOf32(own);
    const bool isNext = u >= 1;
    const std::uint32_t luck = mixBits32(own + turns + (isNext ? 1u : 0u));
    const float age = isNext ? u - 1 : u;
    const float fall = (1 - age) / (1 - rise);
    const float glow = age < rise ? age / rise : fall * fall;
    return {unitOf32(luck << 12), unitOf32(luck) < density ? glow : 0.f};
  });
}

}  // namespace

Effect glints() {
  return cellwise({
      .key = "glints",
      .name = "Glints",
      .summary = "Cells light up here and there and fade again.",
      .params = {numberParam("density", "Lit at once", "of all cells", 0.01, 1, 0.25),
                 numberParam("life", "Lasts", "s", 0.1, 10, 0.9, 0.1),
                 numberParam("rise", "Rise", "of its life", 0.01, 0.9, 0.1)},
      .render = render,
      .group = EffectGroup::Sparks,
  });
}

}  // namespace chispa
