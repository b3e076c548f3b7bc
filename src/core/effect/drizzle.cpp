// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/curves.h"
#include "core/effect/all.h"
#include "core/effect/edges.h"
#include "core/effect/pace.h"
#include "core/effect/shade.h"

namespace chispa {
namespace {

enum { Across, Drops, Speed, Tail, Uneven, Metric, Hard = Metric + 2 };

struct Rain {
  float drops;
  float tail;
  float uneven;
  double speed;
  double cell;
  bool isHard;
};

/// Some drops are missing, so that rain does not fall in step; `string` is the string's own chance.
bool isMissing(std::uint32_t string, std::int32_t which, float uneven) {
  return unitOf32(mixBits32(string + static_cast<std::uint32_t>(which))) < uneven * 0.5f;
}

/// The drops of one string at place `u`, 0 where they fall from.
CHISPA_INLINED inline HotShade dropsAt(std::uint32_t string, double t_s, float u, const Rain& rain) {
  const auto drops = static_cast<double>(rain.drops);
  const double pace = rain.speed * static_cast<double>(1 - rain.uneven * 0.7f * unitOf32(string << 12));
  const double at =
      static_cast<double>(u) * drops - pace * t_s * drops + static_cast<double>(unitOf32(string)) * 17;
  const auto blur = static_cast<float>(edgeBlur(rain.cell, pace, drops, rain.isHard));
  // The drop at the next whole number has just passed; the one at this number is still to come.
  const float behind = 1 - fraction(at);
  const auto coming = static_cast<std::int32_t>(std::floor(at));
  // It is at its full for as long as its head takes to come in.
  const float gap = higher(0, behind - blur / 2) / rain.tail;
  const float trail = gap < 1 ? (1 - gap) * (1 - gap) : 0;
  const float body = isMissing(string, coming + 1, rain.uneven) ? 0 : trail * past(behind, blur);
  // Its head comes into the cell by degrees.
  const float head = isMissing(string, coming, rain.uneven) ? 0 : past(behind - 1, blur);
  // What comes into the cell is as hot as it will be there.
  const float rest = head > 0 ? 1 : higher(0, 1 - gap);
  return {rest, body + head, heatOf(1 - rest)};
}

CHISPA_MULTIVERSION void render(const EffectInput& in, LightBuffer& out) noexcept {
  const bool hasRows = in.cells.rows > 1;
  const Rain rain{
      in.params.real(Drops),  in.params.real(Tail),
      in.params.real(Uneven), std::abs(paceOf(in, Metric, 1, {0, in.params.number(Speed)}).perSecond),
      cellWidth(in),          in.params.isOn(Hard)};
  shadeHotCells(in, out, [&](std::size_t i) -> HotShade {
    const auto column = static_cast<std::uint32_t>(hasRows ? in.cells.column[i] : 0);
    return dropsAt(mixBits32(in.seed ^ column * kGoldenBits32), in.t_s, 1 - in.place[i], rain);
  });
}

}  // namespace

Effect drizzle() {
  return cellwise({
      .key = "drizzle",
      .name = "Drizzle",
      .summary = "Drops run down, each string in its own time.",
      .params = across(Axis::Rows, hardOrSoft(withPace(
                                       {numberParam("drops", "Drops on a string", "", 0.2, 12, 2.5, 0.1),
                                        numberParam("speed", "Falls", "times per second", 0.05, 6, 0.8, 0.05),
                                        numberParam("tail", "Tail", "of the gap", 0.02, 1, 0.5),
                                        numberParam("uneven", "Unevenness", "", 0, 1, 0.7)}))),
      .render = render,
      .group = EffectGroup::Sparks,
  });
}

}  // namespace chispa
