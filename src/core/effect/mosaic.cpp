// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/curves.h"
#include "core/effect/all.h"
#include "core/effect/shade.h"

namespace chispa {
namespace {

enum { Stones, Moves, Joint, Shimmer };

/// A square's own number.
std::uint32_t numberOf(std::uint32_t seed, float column, float row) {
  return mixBits32(seed ^ mixBits32(static_cast<std::uint32_t>(static_cast<std::int32_t>(column)) * 7919u ^
                                    mixBits32(static_cast<std::uint32_t>(static_cast<std::int32_t>(row)))));
}

/// Cells of C. Worley's kind (1996): in each square of a grid wanders a stone, and every place belongs to the
/// nearest.
CHISPA_MULTIVERSION void render(const EffectInput& in, LightBuffer& out) noexcept {
  const float stones = in.params.real(Stones);
  const float t = fraction(in.t_s * in.params.number(Moves) / (2 * kPi));
  // Stones wander in their squares, and all of them drift.
  const auto flows = static_cast<float>(std::fmod(in.t_s * in.params.number(Moves) * 0.15, 1e4));
  const auto shimmerTime = static_cast<float>(in.t_s / (2 * kPi));
  const float joint = in.params.real(Joint);
  const float shimmer = in.params.real(Shimmer);
  const std::uint32_t seed = in.seed;
  shadeCells(in, out, [&](std::size_t i) -> Shade {
    const float x = in.cells.x[i] * stones + flows;
    const float y = in.cells.y[i] * stones + 0.5f;
    const float column = std::floor(x);
    const float row = std::floor(y);
    // Squares of the distances: only the two nearest need their roots.
    float nearest = 81;
    float second = 81;
    float own = 0;
#pragma GCC unroll 9
    for (int square = 0; square < 9; ++square) {
      const float gx = column + static_cast<float>(square % 3 - 1);
      const float gy = row + static_cast<float>(square / 3 - 1);
      const std::uint32_t number = numberOf(seed, gx, gy);
      const float turn = unitOf32(number << 12) + t;
      const float dx = x - gx - 0.5f - 0.38f * cosineOfTurns(turn);
      const float dy = y - gy - 0.5f - 0.38f * sineOfTurns(turn);
      const float off = dx * dx + dy * dy;
      const bool isNearest = off < nearest;
      const float other = isNearest ? nearest : off;
      second = other < second ? other : second;
      own = isNearest ? unitOf32(number << 4) : own;
      nearest = isNearest ? off : nearest;
    }
    const float glimmer =
        1 - shimmer * (0.5f + 0.5f * sineOfTurns(shimmerTime * (1 + 2 * own) + own * 6.37f));
    const float face = joint > 0 ? easeBetween(0, joint, std::sqrt(second) - std::sqrt(nearest)) : 1;
    return {own, face * glimmer};
  });
}

}  // namespace

Effect mosaic() {
  return cellwise({
      .key = "mosaic",
      .name = "Mosaic",
      .summary = "Stones of colour, each its own, that shift against each other.",
      .params = {numberParam("stones", "Stones", "across a half", 0.5, 20, 3, 0.5),
                 numberParam("moves", "Moves", "", 0, 5, 1, 0.05),
                 numberParam("joint", "Joint", "", 0, 0.8, 0.18),
                 numberParam("shimmer", "Shimmer", "", 0, 1, 0.4)},
      .render = render,
      .group = EffectGroup::Textures,
  });
}

}  // namespace chispa
