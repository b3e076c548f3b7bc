// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/curves.h"
#include "core/effect/all.h"
#include "core/effect/pace.h"
#include "core/effect/shade.h"

namespace chispa {
namespace {

enum { Across, Repeats, Passes, Slant, Speed };

CHISPA_MULTIVERSION void render(const EffectInput& in, LightBuffer& out) noexcept {
  const auto place = in.place;
  const auto other = in.cells.along(Axis::Rows);
  const float repeats = in.params.real(Repeats);
  const float slant = in.params.real(Slant);
  const float shift =
      fraction(paceOf(in, Speed, in.params.number(Repeats), {in.params.number(Passes) * in.bars}).done);
  shadeCellsAround(in, out, [&](std::size_t i) -> Shade {
    return {place[i] * repeats + other[i] * slant - shift, 1};
  });
}

}  // namespace

Effect ribbon() {
  return cellwise({
      .key = "ribbon",
      .name = "Ribbon",
      .summary = "The palette travels through the zone.",
      .params = across(Axis::Along, withPace({numberParam("repeats", "Repeats", "×", 0.1, 24, 1, 0.1),
                                              numberParam("passes", "Passes per bar", "", -8, 8, 0.5, 0.05),
                                              numberParam("slant", "Slant by row", "", -4, 4, 0, 0.05)})),
      .render = render,
      .group = EffectGroup::Flows,
  });
}

}  // namespace chispa
