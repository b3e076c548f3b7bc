// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/effect/all.h"
#include "core/effect/curves.h"

namespace chispa {
namespace {

enum { Density, Life, Rise };

void render(const EffectInput& in, LightBuffer& out) noexcept {
  const float density = in.params.real(Density);
  const double life = in.params.number(Life);
  const float rise = in.params.real(Rise);
  const auto count = static_cast<std::size_t>(in.cells.count());
  for (std::size_t i = 0; i < count; ++i) {
    // Each cell has its own clock; in each of its turns it lights up, or not, in one colour.
    const double clock = in.t_s / life + chance(in.seed, i, 1);
    const auto turn = static_cast<std::uint64_t>(clock);
    if (chance(in.seed, i, 3 * turn + 2) >= density) {
      out.set(i, {}, 0);
      continue;
    }
    const float age = fraction(clock);
    const float fall = (1 - age) / (1 - rise);
    const float glow = age < rise ? age / rise : fall * fall;
    out.set(i, in.palette.clamped(chance(in.seed, i, 3 * turn + 3)), glow);
  }
}

}  // namespace

Effect glints() {
  return {"glints", "Glints", "Cells light up here and there and fade again.",
          {numberParam("density", "Lit at once", "of all cells", 0.01, 1, 0.25),
           numberParam("life", "Lasts", "s", 0.1, 10, 0.9, 0.1), numberParam("rise", "Rise", "of its life", 0.01, 0.9, 0.1)},
          render};
}

}  // namespace chispa
