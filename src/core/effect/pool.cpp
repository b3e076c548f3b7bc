// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/effect/all.h"
#include "core/effect/curves.h"

namespace chispa {
namespace {

enum { Grain, Speed, Depth, Glitter };

void render(const EffectInput& in, LightBuffer& out) noexcept {
  const float grain = in.params.real(Grain);
  const auto t = static_cast<float>(in.t_s * in.params.number(Speed));
  const float depth = in.params.real(Depth);
  const float glitter = in.params.real(Glitter);
  constexpr int kWaves = 4;
  float dx[kWaves], dy[kWaves];
  for (int w = 0; w < kWaves; ++w) {
    const float turn = static_cast<float>(2 * kPi) * (chance(in.seed, static_cast<std::uint64_t>(w)) + static_cast<float>(w)) / kWaves;
    dx[w] = std::cos(turn);
    dy[w] = std::sin(turn);
  }
  const auto count = static_cast<std::size_t>(in.cells.count());
  for (std::size_t i = 0; i < count; ++i) {
    float x = in.cells.x[i] * grain;
    float y = in.cells.y[i] * grain;
    float bright = 0;
    // Each wave bends the light for the next; where the bends meet, the floor of the pool shines.
    for (int w = 0; w < kWaves; ++w) {
      const float phase = (x * dx[w] + y * dy[w]) * (1 + 0.3f * static_cast<float>(w)) * 2 + t * (1 + 0.2f * static_cast<float>(w));
      const float slope = std::cos(phase);
      x += 0.35f * slope * dy[w];
      y -= 0.35f * slope * dx[w];
      bright += 1 - std::abs(std::sin(phase));
    }
    const float shine = bright / kWaves;
    const float crest = easeBetween(0.62f, 0.8f, shine) * glitter;
    out.set(i, in.palette.clamped(std::fmin(shine * (0.6f + 0.4f * depth) + crest, 1.f)), 1 - depth + depth * (0.35f + 0.65f * shine));
  }
}

}  // namespace

Effect pool() {
  return {"pool", "Pool", "Light on the floor of moving water.",
          {numberParam("grain", "Grain", "", 0.3, 12, 2.5, 0.1), numberParam("speed", "Moves", "", 0, 5, 1, 0.05), numberParam("depth", "Depth", "", 0, 1, 0.6),
           numberParam("glitter", "Glitter", "", 0, 1, 0.5)},
          render, EffectGroup::Textures};
}

}  // namespace chispa
