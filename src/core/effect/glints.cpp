// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/effect/all.h"
#include "core/effect/curves.h"

namespace chispa {
namespace {

enum { Density, Life, Rise };

void render(const EffectInput& in, LightBuffer& out) noexcept {
  const float density = in.params.real(Density);
  const double clockNow = in.t_s / in.params.number(Life);
  const float rise = in.params.real(Rise);
  const auto count = static_cast<std::size_t>(in.cells.count());
  for (std::size_t i = 0; i < count; ++i) {
    // Each cell has its own clock; in each of its turns it lights up, or not, in one colour.
    const std::uint64_t own = mixBits(in.seed ^ (i << 20));
    const double clock = clockNow + static_cast<double>(unitOf(own));
    const auto turn = static_cast<std::uint64_t>(clock);
    const std::uint64_t luck = mixBits(own + turn);
    if (unitOf(luck) >= density) {
      out.set(i, {}, 0);
      continue;
    }
    const auto age = static_cast<float>(clock - static_cast<double>(turn));
    const float fall = (1 - age) / (1 - rise);
    const float glow = age < rise ? age / rise : fall * fall;
    out.set(i, in.palette.clamped(unitOf(luck, 16)), glow);
  }
}

}  // namespace

Effect glints() {
  return {"glints", "Glints", "Cells light up here and there and fade again.",
          {numberParam("density", "Lit at once", "of all cells", 0.01, 1, 0.25),
           numberParam("life", "Lasts", "s", 0.1, 10, 0.9, 0.1), numberParam("rise", "Rise", "of its life", 0.01, 0.9, 0.1)},
          render, EffectGroup::Sparks};
}

}  // namespace chispa
