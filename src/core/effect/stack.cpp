// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/effect/all.h"
#include "core/effect/curves.h"
#include "core/effect/shade.h"

namespace chispa {
namespace {

enum { Across, Bricks, PerBeat, Gap, Clears };

CHISPA_CLONES void render(const EffectInput& in, LightBuffer& out) noexcept {
  const double bricks = std::round(in.params.number(Bricks));
  const double laid = in.beats * in.params.number(PerBeat);
  const float gap = in.params.real(Gap);
  // Round after round: `bricks` are laid, and with "clears" as many turns take them away again from below.
  const bool clears = in.params.isOn(Clears);
  const double round = clears ? std::fmod(laid, 2 * bricks) : std::fmod(laid, bricks + 1);
  const double down = clears && round > bricks ? round - bricks : 0;
  const double lying = std::min(std::floor(round), bricks);
  const auto fall = static_cast<float>(round - std::floor(round));
  shadeCells(in, out, [&](std::size_t i) -> Shade {
    const float at = in.place[i] * static_cast<float>(bricks);
    const auto which = static_cast<double>(std::floor(at));
    const bool isMortar = fraction(static_cast<double>(at)) > 1 - gap;
    const bool isLying = which < lying && which >= std::floor(down);
    // The next one comes down from the top and meets the pile at the end of its turn.
    const float flying = static_cast<float>(bricks) - fall * fall * static_cast<float>(bricks - lying);
    const bool isFlying = down <= 0 && lying < bricks && at >= flying && at < flying + 1 - gap;
    return {isFlying ? static_cast<float>(lying / bricks) : static_cast<float>((which + 0.5) / bricks),
            (isLying && !isMortar) || isFlying ? 1.f : 0.f};
  });
}

}  // namespace

Effect stack() {
  return cellwise({"stack", "Stack", "Bricks of light fall and pile up, and are taken away again.",
                   across(Axis::Rows, {numberParam("bricks", "Bricks", "", 2, 60, 8, 1),
                                       numberParam("per-beat", "Laid", "a beat", 0.125, 8, 1, 0.125),
                                       numberParam("gap", "Gap", "of a brick", 0, 0.8, 0.15),
                                       switchParam("clears", "Are taken away again", true)}),
                   render, EffectGroup::Steps});
}

}  // namespace chispa
