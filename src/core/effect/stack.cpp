// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/curves.h"
#include "core/effect/all.h"
#include "core/effect/edges.h"
#include "core/effect/shade.h"

namespace chispa {
namespace {

enum { Across, Bricks, PerBeat, Gap, Clears, Hard };

CHISPA_MULTIVERSION void render(const EffectInput& in, LightBuffer& out) noexcept {
  const double bricks = std::round(in.params.number(Bricks));
  const double laid = in.beats * in.params.number(PerBeat);
  const float gap = in.params.real(Gap);
  // Round after round: `bricks` are laid, and with "clears" as many turns take them away again from below.
  const bool clears = in.params.isOn(Clears);
  const double round = clears ? std::fmod(laid, 2 * bricks) : std::fmod(laid, bricks + 1);
  const double down = clears && round > bricks ? round - bricks : 0;
  const double lying = std::min(std::floor(round), bricks);
  const auto fall = static_cast<float>(round - std::floor(round));
  const auto room = static_cast<float>(bricks - lying);
  const float flying = static_cast<float>(bricks) - fall * fall * room;
  const bool isOneFlying = down <= 0 && lying < bricks;
  // The brick in flight is spread over a cell and over its way in a frame; it is fastest at the end.
  const double pace = 2 * static_cast<double>(room) * in.params.number(PerBeat) / in.beatLength_s;
  const auto blur =
      in.params.isOn(Hard)
          ? kHardEdge
          : static_cast<float>(cellWidth(in) * bricks + (isOneFlying ? pace * kSeenTogether_s * fall : 0));
  // The one that is taken away goes out in its turn.
  const auto going = static_cast<float>(std::floor(down));
  const float left = down > 0 ? 1 - static_cast<float>(down - std::floor(down)) : 1;
  shadeCells(in, out, [&](std::size_t i) -> Shade {
    const float at = in.place[i] * static_cast<float>(bricks);
    const float which = std::floor(at);
    const bool isMortar = fraction(static_cast<double>(at)) > 1 - gap;
    const float standing = which < static_cast<float>(lying) && which >= going && !isMortar
                               ? (which == going ? left : 1.f)
                               : 0.f;
    const float passing = isOneFlying ? coverage(flying, flying + 1 - gap, at, blur) : 0;
    return {
        passing > standing ? static_cast<float>(lying / bricks) : (which + 0.5f) / static_cast<float>(bricks),
        higher(standing, passing)};
  });
}

}  // namespace

Effect stack() {
  return cellwise({
      .key = "stack",
      .name = "Stack",
      .summary = "Bricks of light fall and pile up, and are taken away again.",
      .params = across(Axis::Rows, hardOrSoft({numberParam("bricks", "Bricks", "", 2, 60, 8, 1),
                                               numberParam("per-beat", "Laid", "a beat", 0.125, 8, 1, 0.125),
                                               numberParam("gap", "Gap", "of a brick", 0, 0.8, 0.15),
                                               switchParam("clears", "Are taken away again", true)})),
      .render = render,
      .group = EffectGroup::Steps,
  });
}

}  // namespace chispa
