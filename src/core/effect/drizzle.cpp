// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/effect/all.h"
#include "core/effect/curves.h"
#include "core/effect/shade.h"

namespace chispa {
namespace {

enum { Across, Drops, Speed, Tail, Uneven };

/// Light of the drops of one string at place `u`, 0 where they fall from.
float dropsAt(const EffectInput& in, std::uint64_t string, float u, float drops, float tail, float uneven) {
  const float own = chance(in.seed, string);
  const double pace =
      in.params.number(Speed) * static_cast<double>(1 - uneven * 0.7f * chance(in.seed, string, 7));
  const double at = static_cast<double>(u) * static_cast<double>(drops) -
                    pace * in.t_s * static_cast<double>(drops) + static_cast<double>(own) * 17;
  const float behind = 1 - fraction(at);
  // Some drops are missing, so that rain does not fall in step.
  const auto which = static_cast<std::uint64_t>(static_cast<std::int64_t>(std::floor(at)));
  if (chance(in.seed + 1, string, which) < uneven * 0.5f) return 0;
  const float gap = (1 - behind) / tail;
  return gap < 1 ? (1 - gap) * (1 - gap) : 0;
}

CHISPA_CLONES void render(const EffectInput& in, LightBuffer& out) noexcept {
  const float drops = in.params.real(Drops);
  const float tail = in.params.real(Tail);
  const float uneven = in.params.real(Uneven);
  const bool hasRows = in.cells.rows > 1;
  shadeCells(in, out, [&](std::size_t i) -> Shade {
    const auto string = static_cast<std::uint64_t>(hasRows ? in.cells.column[i] : 0);
    const float glow = dropsAt(in, string, 1 - in.place[i], drops, tail, uneven);
    return {glow, glow};
  });
}

}  // namespace

Effect drizzle() {
  return cellwise({"drizzle", "Drizzle", "Drops run down, each string in its own time.",
                   across(Axis::Rows, {numberParam("drops", "Drops on a string", "", 0.2, 12, 1.5, 0.1),
                                       numberParam("speed", "Falls", "times a second", 0.05, 6, 0.8, 0.05),
                                       numberParam("tail", "Tail", "of the gap", 0.02, 1, 0.5),
                                       numberParam("uneven", "Unevenness", "", 0, 1, 0.7)}),
                   render, EffectGroup::Sparks});
}

}  // namespace chispa
