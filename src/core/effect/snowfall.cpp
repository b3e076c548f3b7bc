// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/effect/all.h"
#include "core/effect/curves.h"

namespace chispa {
namespace {

enum { Flakes, Speed, Drift, Size, Lying };

constexpr int kLevels = 3;

void render(const EffectInput& in, LightBuffer& out) noexcept {
  const double rate = in.params.number(Speed);
  const double flakes = in.params.number(Flakes);
  const float drift = in.params.real(Drift);
  const float size = in.params.real(Size);
  const float lying = in.params.real(Lying) * static_cast<float>(in.length_s > 0 ? in.t_s / in.length_s : 0);
  const auto rows = in.cells.along(Axis::Rows);
  const auto along = in.cells.along(Axis::Along);
  const bool isLine = in.cells.rows == 1;
  const auto count = static_cast<std::size_t>(in.cells.count());
  for (std::size_t i = 0; i < count; ++i) {
    float glow = 0;
    // Near flakes fall faster than far ones; each lives in a box of the level's own grid.
    for (int level = 0; level < kLevels; ++level) {
      const double grain = flakes * (1 + 0.5 * level);
      const double fall = in.t_s * rate * grain / (1 + 0.6 * level);
      const double sway = static_cast<double>(drift) * std::sin(in.t_s * 0.7 + level * 2.1 + static_cast<double>(in.cells.y[i]) * 2);
      const double gx = isLine ? static_cast<double>(along[i]) * grain * 2 + fall : (static_cast<double>(in.cells.x[i]) + sway) * grain;
      const double gy = isLine ? 0 : static_cast<double>(in.cells.y[i]) * grain + fall;
      const auto bx = static_cast<std::uint64_t>(static_cast<std::int64_t>(std::floor(gx)));
      const auto by = static_cast<std::uint64_t>(static_cast<std::int64_t>(std::floor(gy)));
      const std::uint64_t luck = mixBits((in.seed + static_cast<std::uint64_t>(level) * 77) ^ mixBits(bx * 8191 ^ mixBits(by)));
      const float px = 0.25f + 0.5f * unitOf(luck);
      const float py = 0.25f + 0.5f * unitOf(luck, 16);
      const float far = std::hypot(fraction(gx) - px, isLine ? 0.f : fraction(gy) - py);
      glow = std::fmax(glow, (1 - easeBetween(size * 0.4f, size, far)) * (1 - 0.25f * static_cast<float>(level)));
    }
    const float ground = rows[i] < lying ? 1.f : 0.f;
    out.set(i, in.palette.clamped(std::fmax(glow, ground)), std::fmax(glow, ground * 0.6f));
  }
}

}  // namespace

Effect snowfall() {
  return {"snowfall", "Snowfall", "Flakes near and far drift down, and can stay lying.",
          {numberParam("flakes", "Flakes across", "", 1, 20, 4, 0.5), numberParam("speed", "Falls", "halves a second", 0.02, 3, 0.35),
           numberParam("drift", "Drift", "", 0, 1, 0.15), numberParam("size", "Size", "", 0.05, 0.7, 0.3),
           numberParam("lying", "Stays lying up to", "of the height", 0, 1, 0)},
          render, EffectGroup::Sparks};
}

}  // namespace chispa
