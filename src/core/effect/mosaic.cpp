// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/effect/all.h"
#include "core/effect/curves.h"

namespace chispa {
namespace {

enum { Stones, Moves, Joint, Shimmer };

/// The stone nearest to (x, y): how near, how much farther the next one is, and its number.
struct Nearest {
  float off = 9;
  float second = 9;
  std::uint64_t stone = 0;
};

Nearest nearestStone(std::uint64_t seed, float x, float y, float t) {
  Nearest found;
  const auto cx = static_cast<std::int64_t>(std::floor(x));
  const auto cy = static_cast<std::int64_t>(std::floor(y));
  for (std::int64_t gy = cy - 1; gy <= cy + 1; ++gy)
    for (std::int64_t gx = cx - 1; gx <= cx + 1; ++gx) {
      const std::uint64_t id = mixBits(seed ^ mixBits(static_cast<std::uint64_t>(gx) * 7919 ^ mixBits(static_cast<std::uint64_t>(gy))));
      const float turn = static_cast<float>(2 * kPi) * unitOf(id, 16) + t;
      const float px = static_cast<float>(gx) + 0.5f + 0.38f * std::cos(turn) * unitOf(id);
      const float py = static_cast<float>(gy) + 0.5f + 0.38f * std::sin(turn);
      const float off = std::hypot(x - px, y - py);
      if (off < found.off) {
        found = {off, found.off, id};
      } else {
        found.second = std::fmin(found.second, off);
      }
    }
  return found;
}

void render(const EffectInput& in, LightBuffer& out) noexcept {
  const float stones = in.params.real(Stones);
  const auto t = static_cast<float>(in.t_s * in.params.number(Moves));
  const float joint = in.params.real(Joint);
  const float shimmer = in.params.real(Shimmer);
  const auto count = static_cast<std::size_t>(in.cells.count());
  for (std::size_t i = 0; i < count; ++i) {
    const Nearest stone = nearestStone(in.seed, in.cells.x[i] * stones, in.cells.y[i] * stones + 0.5f, t);
    const float own = unitOf(stone.stone, 8);
    const float glimmer = 1 - shimmer * (0.5f + 0.5f * std::sin(static_cast<float>(in.t_s) * (1 + 2 * own) + own * 40));
    const float face = joint > 0 ? easeBetween(0, joint, stone.second - stone.off) : 1;
    out.set(i, in.palette.clamped(own), face * glimmer);
  }
}

}  // namespace

Effect mosaic() {
  return {"mosaic", "Mosaic", "Stones of colour, each its own, that shift against each other.",
          {numberParam("stones", "Stones", "across a half", 0.5, 20, 3, 0.5), numberParam("moves", "Moves", "", 0, 5, 0.6, 0.05), numberParam("joint", "Joint", "", 0, 0.8, 0.18),
           numberParam("shimmer", "Shimmer", "", 0, 1, 0.4)},
          render, EffectGroup::Textures};
}

}  // namespace chispa
