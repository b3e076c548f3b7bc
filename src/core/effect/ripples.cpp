// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/curves.h"
#include "core/effect/all.h"
#include "core/effect/shade.h"

namespace chispa {
namespace {

enum { Every, Speed, Width, Fade, CentreX, CentreY };

constexpr int kMax = 12;

CHISPA_MULTIVERSION void render(const EffectInput& in, LightBuffer& out) noexcept {
  const double period = in.params.number(Every);
  const float speed = in.params.real(Speed);
  const float width = in.params.real(Width);
  const float fade = in.params.real(Fade);
  const float cx = in.params.real(CentreX);
  const float cy = in.params.real(CentreY);
  const double now = in.beats / period;
  const auto latest = static_cast<long>(std::floor(now));
  shadeCells(in, out, [&](std::size_t i) -> Shade {
    const float far = lengthOf(in.cells.x[i] - cx, in.cells.y[i] - cy);
    float glow = 0;
    float hue = 0;
    for (long n = latest; n >= 0 && n > latest - kMax; --n) {
      const auto age = static_cast<float>((now - static_cast<double>(n)) * period);
      const float off = std::abs(far - age * speed) / width;
      if (off >= 1) continue;
      const float own = (1 - off) * (1 - off) * exponential(-age * speed * fade);
      if (own > glow) hue = chance(in.seed, static_cast<std::uint64_t>(n));
      glow = higher(glow, own);
    }
    return {hue, glow};
  });
}

}  // namespace

Effect ripples() {
  return cellwise({
      .key = "ripples",
      .name = "Ripples",
      .summary = "Rings that spread from a point, one every few beats.",
      .params = {numberParam("every", "A ring every", "beats", 0.25, 16, 1, 0.25),
                 numberParam("speed", "Spreads", "half-zones per beat", 0.05, 8, 1, 0.05),
                 numberParam("width", "Width", "", 0.02, 1, 0.3),
                 numberParam("fade", "Fades", "", 0, 4, 0.6, 0.1),
                 numberParam("centre-x", "Point, across", "", -1.5, 1.5, 0, 0.05),
                 numberParam("centre-y", "Point, upward", "", -1.5, 1.5, 0, 0.05)},
      .render = render,
      .group = EffectGroup::Flows,
  });
}

}  // namespace chispa
