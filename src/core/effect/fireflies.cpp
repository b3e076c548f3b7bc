// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/effect/all.h"
#include "core/effect/curves.h"
#include "core/effect/shade.h"

namespace chispa {
namespace {

enum { Flies, Wander, Glow, Size };

constexpr int kMost = 40;

CHISPA_CLONES void render(const EffectInput& in, LightBuffer& out) noexcept {
  const auto flies = static_cast<int>(std::lround(in.params.number(Flies)));
  const double wander = in.params.number(Wander);
  const double period = in.params.number(Glow);
  const float size = in.params.real(Size);
  float x[kMost], y[kMost], lit[kMost];
  for (int k = 0; k < flies; ++k) {
    const auto own = static_cast<std::uint64_t>(k) * 4;
    const double t = in.t_s * wander;
    // Smooth noise leads each one about; it glows for a third of its own time.
    x[k] = 2.6f * noise(in.seed + own, t, 0.5) - 1.3f;
    y[k] = 2.6f * noise(in.seed + own + 1, t, 0.5) - 1.3f;
    const float phase =
        fraction(in.t_s / period * (0.8 + 0.4 * static_cast<double>(chance(in.seed, own, 2))) +
                 static_cast<double>(chance(in.seed, own, 3)));
    lit[k] = phase < 0.4f ? std::sin(phase / 0.4f * static_cast<float>(kPi)) : 0;
  }
  const bool isFlat = in.cells.rows == 1;
  shadeCells(in, out, [&](std::size_t i) -> Shade {
    float glow = 0;
    int which = 0;
    for (int k = 0; k < flies; ++k) {
      if (lit[k] <= 0) continue;
      // Along a line only the place along it counts.
      const float dx = isFlat ? 2 * in.cells.along(Axis::Along)[i] - 1 - x[k] : in.cells.x[i] - x[k];
      const float dy = isFlat ? 0 : in.cells.y[i] - y[k];
      const float own = lit[k] * exponential(-(dx * dx + dy * dy) / (size * size));
      if (own > glow) which = k;
      glow = higher(glow, own);
    }
    return {chance(in.seed, static_cast<std::uint64_t>(which), 9), glow};
  });
}

}  // namespace

Effect fireflies() {
  return cellwise({"fireflies",
                   "Fireflies",
                   "Soft lights that wander, glow and go out.",
                   {numberParam("flies", "Fireflies", "", 1, kMost, 10, 1),
                    numberParam("wander", "Wander", "", 0.02, 3, 0.35),
                    numberParam("glow", "Glow every", "s", 0.4, 12, 2.5, 0.1),
                    numberParam("size", "Size", "", 0.01, 0.6, 0.12)},
                   render,
                   EffectGroup::Sparks});
}

}  // namespace chispa
