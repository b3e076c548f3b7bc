// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/effect/all.h"
#include "core/effect/curves.h"

namespace chispa {
namespace {

enum { Grain, Speed, Swirl, Repeats };

void render(const EffectInput& in, LightBuffer& out) noexcept {
  const float grain = in.params.real(Grain);
  const auto t = static_cast<float>(in.t_s * in.params.number(Speed));
  const float swirl = in.params.real(Swirl);
  const float repeats = in.params.real(Repeats);
  const float own = static_cast<float>(2 * kPi) * chance(in.seed, 1);
  const auto count = static_cast<std::size_t>(in.cells.count());
  for (std::size_t i = 0; i < count; ++i) {
    // Ink that is drawn about twice: sines bend the coordinates that further sines are read at.
    const float x = in.cells.x[i] * grain;
    const float y = in.cells.y[i] * grain;
    const float bx = x + swirl * std::sin(y * 1.7f + t + own);
    const float by = y + swirl * std::cos(x * 1.3f - t * 0.8f);
    const float ink = std::sin(bx * 1.9f + t * 0.6f) + std::sin(by * 2.3f - t * 0.5f + own) + std::sin((bx + by) * 1.1f + t * 0.3f);
    out.set(i, in.palette.wrapped(ink * repeats / 6 + 0.5f), 1);
  }
}

}  // namespace

Effect marbling() {
  return {"marbling", "Marbling", "Inks that flow into each other without mixing.",
          {numberParam("grain", "Grain", "", 0.3, 12, 2, 0.1), numberParam("speed", "Flows", "", 0, 5, 0.8, 0.05), numberParam("swirl", "Swirl", "", 0, 3, 0.8, 0.05),
           numberParam("repeats", "Bands", "×", 0.2, 6, 1, 0.1)},
          render, EffectGroup::Textures};
}

}  // namespace chispa
