// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/curves.h"
#include "core/effect/all.h"
#include "core/effect/shade.h"

namespace chispa {
namespace {

enum { Across, Way, Edge, Then };

CHISPA_MULTIVERSION void render(const EffectInput& in, LightBuffer& out) noexcept {
  const auto place = in.place;
  const bool backwards = in.params.choice(Way) == 1;
  const float edge = in.params.real(Edge);
  const int then = in.params.choice(Then);
  const auto u = static_cast<float>(in.length_s > 0 ? in.t_s / in.length_s : 1);
  const bool draining = then == 1 && u > 0.5f;
  const float share = then == 1 ? (draining ? 2 * u - 1 : 2 * u) : u;
  const float front = share * (1 + edge);
  shadeCells(in, out, [&](std::size_t i) -> Shade {
    const float at = backwards ? 1 - place[i] : place[i];
    const float filled = easeBetween(at, at + edge, front);
    return {at, draining ? 1 - filled : filled};
  });
}

}  // namespace

Effect pour() {
  return cellwise({
      .key = "pour",
      .name = "Pour",
      .summary = "Fills the zone over the clip's length, and can empty it again.",
      .params =
          across(Axis::Along, {choiceParam("way", "From", {{"start", "the start"}, {"end", "the end"}}),
                               numberParam("edge", "Soft edge", "", 0.001, 1, 0.15),
                               choiceParam("then", "Then", {{"stay", "stays full"}, {"drain", "drains"}})}),
      .render = render,
      .group = EffectGroup::Steps,
      .isWhole = true,
  });
}

}  // namespace chispa
