// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/curves.h"
#include "core/effect/all.h"
#include "core/effect/edges.h"
#include "core/effect/shade.h"

namespace chispa {
namespace {

enum { Across, Value, Edge, Peak, Colours, Marks, Rest, Hard };

CHISPA_MULTIVERSION void render(const EffectInput& in, LightBuffer& out) noexcept {
  const float value = in.params.real(Value);
  const auto cell = static_cast<float>(cellWidth(in));
  // Unless it is to be hard, no edge is harder than a cell, so that a value that creeps moves the light
  // smoothly.
  const float edge = in.params.isOn(Hard) ? kHardEdge : higher(in.params.real(Edge), cell);
  const float peak = in.params.real(Peak);
  const float rest = in.params.real(Rest);
  const auto marks = std::round(in.params.real(Marks));
  const float gap = marks > 0 ? higher(0.25f, lower(0.8f, cell * marks)) : 0;
  const bool isWhole = in.params.choice(Colours) == 1;
  // Empty it is dark, full it lights the last cell too.
  const float filled = value * (1 + edge) - edge / 2;
  shadeCells(in, out, [&](std::size_t i) -> Shade {
    const float at = in.place[i];
    const float bar = past(filled - at, edge);
    const float tip = peak > 0 ? coverage(value - peak, value, at, higher(cell, peak * 0.5f)) : 0;
    const float within_ = marks > 0 ? fraction(at * marks) : 1;
    const float mark = marks > 0 ? past(lower(within_, 1 - within_) - gap / 2, cell * marks) : 1;
    const float lit = higher(bar * (peak > 0 ? 0.4f : 1.f), tip);
    return {isWhole ? value : at, mark * (rest + (1 - rest) * lit)};
  });
}

}  // namespace

Effect gauge() {
  return cellwise({
      .key = "gauge",
      .name = "Gauge",
      .summary = "A bar as long as its value: draw the value as a curve, or let the music drive it.",
      .params = across(Axis::Rows, hardOrSoft({numberParam("value", "Value", "", 0, 1, 0.6),
                                               numberParam("edge", "Soft edge", "", 0.001, 1, 0.05),
                                               numberParam("peak", "Bright tip", "", 0, 0.5, 0),
                                               choiceParam("colours", "Colours",
                                                           {{"place", "by place"}, {"value", "by value"}}),
                                               numberParam("marks", "Divided into", "marks", 0, 40, 0, 1),
                                               numberParam("rest", "Empty part glows", "", 0, 0.5, 0)})),
      .render = render,
      .group = EffectGroup::Steps,
  });
}

}  // namespace chispa
