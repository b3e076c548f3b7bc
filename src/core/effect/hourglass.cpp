// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/curves.h"
#include "core/effect/all.h"
#include "core/effect/edges.h"
#include "core/effect/shade.h"

namespace chispa {
namespace {

enum { Across, Runs, Grains, Glass };

/// Of a bar of music, a phrase of four, or the section: how much of the time is over.
double shareOf(const EffectInput& in) {
  constexpr double kBarsOfPhrase = 4;
  switch (in.params.choice(Runs)) {
    case 1:
      return in.bars / kBarsOfPhrase - std::floor(in.bars / kBarsOfPhrase);
    case 2:
      return in.bars - std::floor(in.bars);
    default:
      return in.section;
  }
}

/// Sand sinks in the upper half of the axis, falls through the middle, and rises in the lower half.
CHISPA_MULTIVERSION void render(const EffectInput& in, LightBuffer& out) noexcept {
  const auto share = static_cast<float>(shareOf(in));
  const auto cell = static_cast<float>(cellWidth(in));
  const float top = 0.5f + 0.5f * (1 - share);
  const float heap = 0.46f * share;
  const float glass = in.params.real(Glass);
  const float grains = in.params.real(Grains);
  const bool falls = share < 1;
  const double t = in.t_s * 1.6;
  const bool hasWidth = in.cells.rows > 1;
  const auto beside = in.cells.along(Axis::Columns);
  shadeCells(in, out, [&](std::size_t i) -> Shade {
    const float at = in.place[i];
    // The heap has a tip and the sand above it a hollow, where there is a width to see them.
    const float off = hasWidth ? std::abs(2 * beside[i] - 1) : 0.f;
    const float slope = 0.12f * share * (1 - share) * 4;
    const float below = past(heap + slope * (0.5f - off) - at, cell);
    const float above = past(at - 0.5f, cell) * past(top - slope * (0.5f - off) - at, cell);
    const float grain = fraction(static_cast<double>(at * 7 * grains) + t * 2);
    const float stream = falls ? past(0.5f - at, cell) * past(at - heap, cell) *
                                     (1 - easeBetween(0.05f, 0.95f, std::abs(grain - 0.5f) * 2)) *
                                     (hasWidth ? past(0.08f - off, 2 * cell) : 1)
                               : 0;
    const float lit = higher(below, higher(above, stream));
    return {at, higher(glass, lit)};
  });
}

}  // namespace

Effect hourglass() {
  return cellwise({
      .key = "hourglass",
      .name = "Hourglass",
      .summary = "Sand that runs until the section of the music is over.",
      .params = across(Axis::Rows,
                       {choiceParam("runs", "Runs for",
                                    {{"section", "the section"}, {"phrase", "four bars"}, {"bar", "a bar"}}),
                        numberParam("grains", "Grains", "", 0.3, 5, 1, 0.1),
                        numberParam("glass", "The glass glows", "", 0, 0.5, 0.02)}),
      .render = render,
      .group = EffectGroup::Music,
  });
}

}  // namespace chispa
