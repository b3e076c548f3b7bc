// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/effect/all.h"
#include "core/effect/curves.h"
#include "core/effect/shade.h"

namespace chispa {
namespace {

enum { Across, Heads, Passes, Tail, Offset };

CHISPA_CLONES void render(const EffectInput& in, LightBuffer& out) noexcept {
  const auto place = in.place;
  const auto string = in.cells.along(Axis::Columns);
  const double passes = in.params.number(Passes);
  const float heads = std::round(in.params.real(Heads));
  const float tail = in.params.real(Tail);
  // One column lags its neighbour by the offset; a single row has nothing to be offset by.
  const float offset = in.cells.rows > 1 ? in.params.real(Offset) * static_cast<float>(in.cells.columns) : 0;
  const float moved = fraction(std::abs(passes) * in.bars);
  const float lag = offset / heads;
  const bool backwards = passes < 0;
  const float perTail = 1 / tail;
  shadeCells(in, out, [&](std::size_t i) -> Shade {
    const float ahead = backwards ? 1 - place[i] : place[i];
    const float behind = (moved - string[i] * lag - ahead) * heads;
    const float gap = (behind - std::floor(behind)) * perTail;
    const float glow = gap < 1 ? (1 - gap) * (1 - gap) : 0;
    return {1 - gap, glow};
  });
}

}  // namespace

Effect comets() {
  return cellwise(
      {"comets", "Comets", "Bright heads run through the zone and leave tails.",
       across(Axis::Along, {numberParam("heads", "Heads", "", 1, 24, 2, 1),
                            numberParam("passes", "Passes a bar", "", -8, 8, 1, 0.05),
                            numberParam("tail", "Tail", "of the gap", 0.02, 1, 0.5),
                            numberParam("offset", "Offset from string to string", "pass", 0, 1, 0.08)}),
       render, EffectGroup::Sparks});
}

}  // namespace chispa
