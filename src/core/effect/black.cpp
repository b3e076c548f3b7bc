// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/curves.h"
#include "core/effect/all.h"

namespace chispa {
namespace {

enum { Across, From, To };

void render(const EffectInput& in, LightBuffer& out) noexcept {
  const float from = in.params.real(From);
  const float to = in.params.real(To);
  // Dark that covers: what lies below does not show through.
  for (std::size_t i = 0; i < in.place.size(); ++i)
    out.set(i, {}, in.place[i] >= from && in.place[i] <= to ? 1.f : 0.f);
}

}  // namespace

Effect black() {
  return {
      .key = "black",
      .name = "Black",
      .summary = "Covers what lies below, all of it or a part.",
      .params = across(Axis::Along,
                       {numberParam("from", "From", "", 0, 1, 0), numberParam("to", "To", "", 0, 1, 1)}),
      .render = render,
      .group = EffectGroup::Plain,
  };
}

}  // namespace chispa
