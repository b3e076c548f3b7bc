// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/curves.h"
#include "core/effect/all.h"
#include "core/effect/shade.h"

namespace chispa {
namespace {

enum { Grain, Speed, Way, Contrast, Detail };

CHISPA_MULTIVERSION void render(const EffectInput& in, LightBuffer& out) noexcept {
  const double grain = in.params.number(Grain);
  const double way = in.params.number(Way) * kPi / 180;
  const double sx = std::cos(way) * in.params.number(Speed) * in.t_s;
  const double sy = std::sin(way) * in.params.number(Speed) * in.t_s;
  const float contrast = in.params.real(Contrast);
  const float detail = in.params.real(Detail);
  shadeCells(in, out, [&](std::size_t i) -> Shade {
    const double x = (static_cast<double>(in.cells.x[i]) - sx) * grain;
    const double y = (static_cast<double>(in.cells.y[i]) - sy) * grain;
    // Two heights of cloud that change into each other keep the sky from standing still.
    const float low = noise(in.seed, x, y);
    const float fine = noise(in.seed + 1, x * 2.1 + in.t_s * 0.2, y * 2.1);
    const float thick = low * (1 - 0.4f * detail) + fine * 0.4f * detail;
    const float u = lower(higher(0.5f + (thick - 0.5f) * contrast, 0.f), 1.f);
    return {u, 1};
  });
}

}  // namespace

Effect clouds() {
  return cellwise({
      .key = "clouds",
      .name = "Clouds",
      .summary = "Soft banks of colour drift by.",
      .params = {numberParam("grain", "Grain", "", 0.3, 12, 1.6, 0.1),
                 numberParam("speed", "Drifts", "half-zones per second", 0, 3, 0.3),
                 numberParam("way", "Towards", "°", -180, 180, 0, 5),
                 numberParam("contrast", "Contrast", "×", 0.5, 4, 1.8, 0.1),
                 numberParam("detail", "Detail", "", 0, 1, 0.6)},
      .render = render,
      .group = EffectGroup::Textures,
  });
}

}  // namespace chispa
