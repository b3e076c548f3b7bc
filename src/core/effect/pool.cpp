// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/curves.h"
#include "core/effect/all.h"
#include "core/effect/shade.h"

namespace chispa {
namespace {

enum { Grain, Speed, Depth, Glitter };

CHISPA_MULTIVERSION void render(const EffectInput& in, LightBuffer& out) noexcept {
  const float grain = in.params.real(Grain);
  const auto t = static_cast<float>(in.t_s * in.params.number(Speed));
  const float depth = in.params.real(Depth);
  const float glitter = in.params.real(Glitter);
  constexpr int kWaves = 4;
  float dx[kWaves], dy[kWaves];
  for (int w = 0; w < kWaves; ++w) {
    const float turns = (chance(in.seed, static_cast<std::uint64_t>(w)) + static_cast<float>(w)) / kWaves;
    dx[w] = cosineOfTurns(turns);
    dy[w] = sineOfTurns(turns);
  }
  shadeCells(in, out, [&](std::size_t i) -> Shade {
    float x = in.cells.x[i] * grain;
    float y = in.cells.y[i] * grain;
    float bright = 0;
    // Each wave bends the light for the next; where the bends meet, the floor of the pool shines.
#pragma GCC unroll 4
    for (int w = 0; w < kWaves; ++w) {
      const float phase = (x * dx[w] + y * dy[w]) * (1 + 0.3f * static_cast<float>(w)) * 2 +
                          t * (1 + 0.2f * static_cast<float>(w));
      const float turns = phase * static_cast<float>(0.5 / kPi);
      const float slope = cosineOfTurns(turns);
      x += 0.35f * slope * dy[w];
      y -= 0.35f * slope * dx[w];
      bright += 1 - std::abs(sineOfTurns(turns));
    }
    const float shine = bright / kWaves;
    const float crest = easeBetween(0.62f, 0.8f, shine) * glitter;
    return {shine * (0.6f + 0.4f * depth) + crest, 1 - depth + depth * (0.35f + 0.65f * shine)};
  });
}

}  // namespace

Effect pool() {
  return cellwise({
      .key = "pool",
      .name = "Pool",
      .summary = "Light on the floor of moving water.",
      .params = {numberParam("grain", "Grain", "", 0.3, 12, 2.5, 0.1),
                 numberParam("speed", "Moves", "", 0, 5, 1, 0.05),
                 numberParam("depth", "Depth", "", 0, 1, 0.6),
                 numberParam("glitter", "Glitter", "", 0, 1, 0.5)},
      .render = render,
      .group = EffectGroup::Textures,
  });
}

}  // namespace chispa
