// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/effect/all.h"
#include "core/effect/curves.h"
#include "core/effect/shade.h"

namespace chispa {
namespace {

enum { Flakes, Speed, Drift, Size, Lying };

constexpr int kLevels = 3;

/// One of the heights that flakes fall at: on a face across and up, on a line along it only.
struct Level {
  float grain;
  /// How far they have fallen, in boxes: the part behind the point and the whole ones, so that it stays exact
  /// for hours.
  float fallenAcross, fallenUp;
  std::uint32_t boxesAcross, boxesUp;
  float sway;
  std::uint32_t seed;
};

std::array<Level, kLevels> levelsOf(const EffectInput& in, bool isLine) {
  std::array<Level, kLevels> levels;
  for (int n = 0; n < kLevels; ++n) {
    // Near flakes fall faster than far ones.
    const double grain = in.params.number(Flakes) * (1 + 0.5 * n);
    const double fallen = in.t_s * in.params.number(Speed) * grain / (1 + 0.6 * n);
    const auto boxes = static_cast<std::uint32_t>(static_cast<std::int64_t>(std::floor(fallen)));
    const float part = fraction(fallen);
    levels[static_cast<std::size_t>(n)] = {static_cast<float>(grain),
                                           isLine ? part : 0.f,
                                           isLine ? 0.f : part,
                                           isLine ? boxes : 0,
                                           isLine ? 0 : boxes,
                                           fraction((in.t_s * 0.7 + n * 2.1) / (2 * kPi)),
                                           in.seed + static_cast<std::uint32_t>(n) * 77};
  }
  return levels;
}

CHISPA_CLONES void render(const EffectInput& in, LightBuffer& out) noexcept {
  const float size = in.params.real(Size);
  const float lying = in.params.real(Lying) * static_cast<float>(in.length_s > 0 ? in.t_s / in.length_s : 0);
  const bool isLine = in.cells.rows == 1;
  const float drift = isLine ? 0 : in.params.real(Drift);
  const float upward = isLine ? 0 : 1;
  const float stretch = isLine ? 2 : 1;
  const auto rows = in.cells.along(Axis::Rows);
  const std::span<const float> across = isLine ? in.cells.along(Axis::Along) : in.cells.x;
  const std::array<Level, kLevels> levels = levelsOf(in, isLine);
  shadeCells(in, out, [&](std::size_t i) -> Shade {
    const float up = in.cells.y[i] * upward;
    float glow = 0;
    // Each flake lives in a box of its level's own grid.
#pragma GCC unroll 3
    for (int n = 0; n < kLevels; ++n) {
      const Level& level = levels[static_cast<std::size_t>(n)];
      const float sway = drift * sineOfTurns(level.sway + up * static_cast<float>(1 / kPi));
      const float gx = (across[i] * stretch + sway) * level.grain + level.fallenAcross;
      const float gy = up * level.grain + level.fallenUp;
      const float column = std::floor(gx);
      const float row = std::floor(gy);
      const std::uint32_t box =
          mixBits32(static_cast<std::uint32_t>(static_cast<std::int32_t>(row)) + level.boxesUp) ^
          (static_cast<std::uint32_t>(static_cast<std::int32_t>(column)) + level.boxesAcross) * 8191u;
      const std::uint32_t luck = mixBits32(level.seed ^ mixBits32(box));
      const float dx = gx - column - 0.25f - 0.5f * unitOf32(luck);
      const float dy = (gy - row - 0.25f - 0.5f * unitOf32(luck << 12)) * upward;
      glow = higher(
          glow, (1 - easeBetween(size * 0.4f, size, lengthOf(dx, dy))) * (1 - 0.25f * static_cast<float>(n)));
    }
    const float ground = rows[i] < lying ? 1.f : 0.f;
    return {higher(glow, ground), higher(glow, ground * 0.6f)};
  });
}

}  // namespace

Effect snowfall() {
  return cellwise(
      {"snowfall",
       "Snowfall",
       "Flakes near and far drift down, and can stay lying.",
       {numberParam("flakes", "Flakes across", "", 1, 20, 4, 0.5),
        numberParam("speed", "Falls", "halves a second", 0.02, 3, 0.35),
        numberParam("drift", "Drift", "", 0, 1, 0.15), numberParam("size", "Size", "", 0.05, 0.7, 0.3),
        numberParam("lying", "Stays lying up to", "of the height", 0, 1, 0)},
       render,
       EffectGroup::Sparks});
}

}  // namespace chispa
