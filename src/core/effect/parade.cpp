// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/effect/all.h"
#include "core/effect/curves.h"

namespace chispa {
namespace {

enum { Across, Groups, Lit, Steps, Glide };

/// The palette's colour of the `n`th block: blocks take turns through four places of it.
Rgb blockColour(const TurnedPalette& palette, long n) {
  constexpr long kColours = 4;
  const long which = ((n % kColours) + kColours) % kColours;
  return palette.clamped((static_cast<float>(which) + 0.5f) / kColours);
}

void render(const EffectInput& in, LightBuffer& out) noexcept {
  const auto place = in.place;
  const double groups = in.params.number(Groups);
  const float lit = in.params.real(Lit);
  const double steps = in.params.number(Steps) * in.beats;
  // Steps are jumps; with glide the blocks travel for that share of each step.
  const float glide = in.params.real(Glide);
  const double moved = std::floor(steps) + (glide > 0 ? easeBetween(0, glide, fraction(steps)) : 0);
  constexpr double kStepsPerGroup = 3;
  // A lamp on the very edge of a block is beyond it, whatever rounding makes of it: blocks are all alike.
  constexpr double kHair = 1e-5;
  for (std::size_t i = 0; i < place.size(); ++i) {
    const double at = place[i] * groups - moved / kStepsPerGroup + kHair;
    const bool on = fraction(at) < lit;
    out.set(i, blockColour(in.palette, static_cast<long>(std::floor(at))), on ? 1.f : 0.f);
  }
}

}  // namespace

Effect parade() {
  return {"parade",
          "Parade",
          "Blocks of colour march on with the beat.",
          across(Axis::Along, {numberParam("groups", "Blocks", "", 1, 60, 4, 1),
                               numberParam("lit", "Lit part", "of a block", 0.05, 1, 0.5),
                               numberParam("steps", "Steps a beat", "", -8, 8, 1, 0.25),
                               numberParam("glide", "Glide", "of a step", 0, 1, 0)}),
          render,
          EffectGroup::Steps};
}

}  // namespace chispa
