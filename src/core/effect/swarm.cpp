// SPDX-License-Identifier: GPL-3.0-or-later
#include <numbers>

#include "core/base/curves.h"
#include "core/effect/all.h"
#include "core/effect/room.h"
#include "core/effect/shade.h"

namespace chispa {
namespace {

enum { From, Count, Within, Flat, Speed, Reach };

constexpr std::size_t kMax = 9;

/// One that flies: where it is, and its place on the palette.
struct Flier {
  Vec3 at;
  float place = 0;
};

/// Three swings that never meet again, so that its way does not repeat.
Flier flierAt(const EffectInput& in, std::uint64_t number, Vec3 origin) noexcept {
  const double half = in.params.number(Within) / 2;
  const double turns = in.t_s * in.params.number(Speed) / (2 * std::numbers::pi * half);
  const auto swing = [&](std::uint64_t side, double pace) {
    const auto begins = static_cast<double>(chance(in.seed, number * 8 + side));
    const auto own = 0.8 + 0.4 * static_cast<double>(chance(in.seed, number * 8 + 4 + side));
    return half * static_cast<double>(sineOfTurns(fraction(turns * pace * own + begins)));
  };
  return {origin + Vec3{swing(0, 1), swing(1, 0.83), swing(2, 1.17) * in.params.number(Flat)},
          chance(in.seed, number * 8 + 3)};
}

CHISPA_MULTIVERSION void render(const EffectInput& in, LightBuffer& out) noexcept {
  const auto count = static_cast<std::size_t>(in.params.number(Count));
  const Vec3 origin = originOf(in, From);
  std::array<Flier, kMax> fliers;
  for (std::size_t n = 0; n < count; ++n) fliers[n] = flierAt(in, n, origin);
  const float reach = in.params.real(Reach);
  const float perSquare = 1 / (reach * reach);
  shadeCells(in, out, [&](std::size_t i) -> Shade {
    float light = 0;
    float place = 0;
    for (std::size_t n = 0; n < count; ++n) {
      const float own = lampLight(squareApart(in.cells.position_m[i], fliers[n].at) * perSquare);
      light += own;
      place += own * fliers[n].place;
    }
    return {place / higher(1e-6f, light), lower(1, light)};
  });
}

}  // namespace

Effect swarm() {
  return cellwise({
      .key = "swarm",
      .name = "Swarm",
      .summary = "A handful of lights that fly through the room, each in its colour; what they pass is lit.",
      .params = {fromParam(), fixedParam("count", "Lights", "", 1, kMax, 5),
                 numberParam("within", "Fly within", "m", 0.1, 60, 1.5, 0.1),
                 numberParam("flat", "Height of that", "", 0, 1, 0.5),
                 numberParam("speed", "Fly at", "m/s", 0, 10, 0.8, 0.05),
                 numberParam("reach", "Their light reaches", "m", 0.03, 10, 0.5, 0.01)},
      .render = render,
      .group = EffectGroup::Sparks,
  });
}

}  // namespace chispa
