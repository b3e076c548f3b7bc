// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/curves.h"
#include "core/effect/all.h"
#include "core/effect/edges.h"
#include "core/effect/pace.h"

namespace chispa {
namespace {

enum { Across, Groups, Lit, Steps, Glide, Speed };

constexpr double kStepsPerGroup = 3;

/// Light of several things that a cell has parts of.
struct LightSum {
  Rgb light;
  float covered = 0;

  void add(Rgb colour, float share) {
    light.r += colour.r * share;
    light.g += colour.g * share;
    light.b += colour.b * share;
    covered += share;
  }
  void put(std::size_t i, LightBuffer& out) const {
    out.r[i] = light.r;
    out.g[i] = light.g;
    out.b[i] = light.b;
    out.a[i] = lower(covered, 1.f);
  }
};

/// The palette's colour of the `n`th block: blocks take turns through four places of it.
Rgb blockColour(const TurnedPalette& palette, long n) {
  constexpr long kColours = 4;
  const long which = ((n % kColours) + kColours) % kColours;
  return palette.clamped((static_cast<float>(which) + 0.5f) / kColours);
}

/// Steps that blocks have made.
Pace stepsOf(const EffectInput& in, double groups) {
  const double steps = in.params.number(Steps);
  return paceOf(in, Speed, groups * kStepsPerGroup, {steps * in.beats, steps / in.beatLength_s});
}

/// What the edges of blocks are spread over, in blocks; 0 where they step.
float blurOf(const EffectInput& in, double groups) {
  if (in.params.real(Glide) <= 0) return 0;
  const double blocks = std::abs(stepsOf(in, groups).perSecond) / kStepsPerGroup;
  return static_cast<float>(edgeBlur(cellWidth(in), blocks / groups, groups));
}

void render(const EffectInput& in, LightBuffer& out) noexcept {
  const auto place = in.place;
  const double groups = in.params.number(Groups);
  const float lit = in.params.real(Lit);
  const double steps = stepsOf(in, groups).done;
  // Steps are jumps; with glide the blocks travel for that share of each step.
  const float glide = in.params.real(Glide);
  const double moved = std::floor(steps) + (glide > 0 ? easeBetween(0, glide, fraction(steps)) : 0);
  // A lamp on the very edge of a block is beyond it, whatever rounding makes of it: blocks are all alike.
  constexpr double kHair = 1e-5;
  const float blur = blurOf(in, groups);
  for (std::size_t i = 0; i < place.size(); ++i) {
    const double at = place[i] * groups - moved / kStepsPerGroup + kHair;
    const auto block = static_cast<long>(std::floor(at));
    const float part = fraction(at);
    if (blur == 0) {
      out.set(i, blockColour(in.palette, block), part < lit ? 1.f : 0.f);
      continue;
    }
    // A cell may have a part of the block before and of the one behind in it.
    LightSum sum;
    sum.add(blockColour(in.palette, block), coverage(0, lit, part, blur));
    sum.add(blockColour(in.palette, block - 1), coverage(-1, lit - 1, part, blur));
    sum.add(blockColour(in.palette, block + 1), past(part - 1, blur));
    sum.put(i, out);
  }
}

}  // namespace

Effect parade() {
  return {
      .key = "parade",
      .name = "Parade",
      .summary = "Blocks of colour march on with the beat.",
      .params = across(Axis::Along,
                       withPace({numberParam("groups", "Blocks", "", 1, 60, 4, 1),
                                 numberParam("lit", "Lit part", "of a block", 0.05, 1, 0.5),
                                 numberParam("steps", "Steps per beat", "", -8, 8, 1, 0.25),
                                 numberParam("glide", "Glide (0: hard steps)", "of a step", 0, 1, 1)})),
      .render = render,
      .group = EffectGroup::Steps,
  };
}

}  // namespace chispa
