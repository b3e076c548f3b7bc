// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/curves.h"
#include "core/effect/all.h"
#include "core/effect/edges.h"
#include "core/effect/pace.h"
#include "core/effect/shade.h"

namespace chispa {
namespace {

enum { Across, Heads, Passes, Tail, Offset, Speed, Hard = Speed + 2 };

CHISPA_MULTIVERSION void render(const EffectInput& in, LightBuffer& out) noexcept {
  const auto place = in.place;
  const auto string = in.cells.along(Axis::Columns);
  const double passes = in.params.number(Passes);
  const Pace pace = paceOf(in, Speed, 1, {passes * in.bars, passes / (in.beatLength_s * in.beatsOfBar)});
  const float heads = std::round(in.params.real(Heads));
  const float tail = in.params.real(Tail);
  // One column lags its neighbour by the offset; a single row has nothing to be offset by.
  const float offset = in.cells.rows > 1 ? in.params.real(Offset) * static_cast<float>(in.cells.columns) : 0;
  const float moved = fraction(std::abs(pace.done));
  const float lag = offset / heads;
  const bool backwards = pace.perSecond < 0;
  const float perTail = 1 / tail;
  const auto blur = static_cast<float>(
      edgeBlur(cellWidth(in), std::abs(pace.perSecond), static_cast<double>(heads), in.params.isOn(Hard)));
  shadeHotCells(in, out, [&](std::size_t i) -> HotShade {
    const float ahead = backwards ? 1 - place[i] : place[i];
    const float way = (moved - string[i] * lag - ahead) * heads;
    // The head comes into a cell by degrees: just ahead of it, it is a little less than nothing behind.
    const float turn = way - std::floor(way);
    const float behind = turn - (turn > 1 - blur ? 1.f : 0.f);
    // It is at its full for as long as its head takes to come in.
    const float gap = (behind - blur / 2) * perTail;
    const float rest = lower(1, 1 - gap);
    const float trail = gap < 1 ? rest * rest : 0;
    return {rest, trail * past(behind, blur), heatOf(1 - rest)};
  });
}

}  // namespace

Effect comets() {
  return cellwise({
      .key = "comets",
      .name = "Comets",
      .summary = "Bright heads run through the zone and leave tails.",
      .params = across(
          Axis::Along,
          hardOrSoft(withPace({numberParam("heads", "Heads", "", 1, 24, 2, 1),
                               numberParam("passes", "Passes per bar", "", -8, 8, 1, 0.05),
                               numberParam("tail", "Tail", "of the gap", 0.02, 1, 0.5),
                               numberParam("offset", "Offset from string to string", "pass", 0, 1, 0.08)}))),
      .render = render,
      .group = EffectGroup::Sparks,
  });
}

}  // namespace chispa
