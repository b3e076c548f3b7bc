// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/curves.h"
#include "core/effect/all.h"
#include "core/effect/pace.h"

namespace chispa {
namespace {

enum { Across, Turns, Repeats, Chroma, Lightness, Speed };

void render(const EffectInput& in, LightBuffer& out) noexcept {
  const float repeats = in.params.real(Repeats);
  const float shift =
      fraction(paceOf(in, Speed, in.params.number(Repeats), {in.params.number(Turns) * in.bars}).done);
  const float chroma = in.params.real(Chroma);
  const float lightness = in.params.real(Lightness);
  for (std::size_t i = 0; i < in.place.size(); ++i) {
    const float turns = in.place[i] * repeats - shift;
    out.set(i, fromOkLab({lightness, chroma * cosineOfTurns(turns), chroma * sineOfTurns(turns)}), 1);
  }
}

}  // namespace

Effect hueWheel() {
  return {
      .key = "hue-wheel",
      .name = "Hue wheel",
      .summary =
          "All hues at one lightness turn through the zone; it needs no palette. Beyond 0.12 of colour some "
          "hues grow brighter or darker than others.",
      .params = across(Axis::Along, withPace({numberParam("turns", "Turns per bar", "", -8, 8, 0.5, 0.05),
                                              numberParam("repeats", "Repeats", "×", 0.1, 24, 1, 0.1),
                                              numberParam("chroma", "Strength of colour", "", 0, 0.33, 0.12),
                                              numberParam("lightness", "Lightness", "", 0.1, 1, 0.72)})),
      .render = render,
      .group = EffectGroup::Flows,
  };
}

}  // namespace chispa
