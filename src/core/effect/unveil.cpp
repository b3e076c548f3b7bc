// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/curves.h"
#include "core/effect/all.h"
#include "core/effect/shade.h"

namespace chispa {
namespace {

enum { Across, From, Edge, Band, Over };

CHISPA_MULTIVERSION void render(const EffectInput& in, LightBuffer& out) noexcept {
  const int from = in.params.choice(From);
  const float edge = in.params.real(Edge);
  const float band = in.params.real(Band);
  const float over = in.params.real(Over);
  const auto u = static_cast<float>(in.length_s > 0 ? in.t_s / in.length_s : 1);
  const float share = over > 0 ? lower(u / over, 1.f) : 1;
  // What is unveiled whole stays lit; a band passes through and leaves the other side.
  const float front = share * (1 + edge + band);
  shadeCells(in, out, [&](std::size_t i) -> Shade {
    const float middle = std::abs(2 * in.place[i] - 1);
    const float at = from == 0 ? in.place[i] : from == 1 ? 1 - in.place[i] : from == 2 ? middle : 1 - middle;
    const float ahead = easeBetween(at, at + edge, front);
    const float behind = band > 0 ? easeBetween(at + band, at + band + edge, front) : 0;
    return {at, ahead - behind};
  });
}

}  // namespace

Effect unveil() {
  return cellwise({
      .key = "unveil",
      .name = "Unveil",
      .summary = "A wipe over the clip's length in any direction, as a whole or as a band that passes.",
      .params = across(
          Axis::Plane,
          {choiceParam(
               "from", "From",
               {{"start", "the start"}, {"end", "the end"}, {"middle", "the middle"}, {"ends", "both ends"}}),
           numberParam("edge", "Soft edge", "", 0.001, 1, 0.1),
           numberParam("band", "Band", "of the way; 0: all", 0, 1, 0),
           numberParam("over", "Done after", "of the clip", 0.02, 1, 1)}),
      .render = render,
      .group = EffectGroup::Steps,
      .isWhole = true,
  });
}

}  // namespace chispa
