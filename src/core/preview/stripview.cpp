// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/preview/stripview.h"

#include <algorithm>

namespace chispa {
namespace {

/// Frames of a period of dithering at the usual rate of 40 a second.
constexpr std::uint8_t kPeriod = 4;

}  // namespace

StripView::StripView(const Show& show, const CompiledShow& compiled)
    : compiled_(compiled),
      values_(compiled.packer->bufferSize()),
      amps_(compiled.budget->supplyCount()),
      levels_(compiled.budget->groupCount(), 1.f) {
  seen_.resize(static_cast<std::size_t>(compiled.map->count()));
  for (int c = 0; c < static_cast<int>(show.controllers.size()); ++c) {
    Line line{ValueLight(show, compiled.patch, c, ValueLight::Dimming::Kept), {}, {}};
    for (std::size_t u = 0; u < compiled.patch.universes.size(); ++u)
      if (const PatchUniverse& universe = compiled.patch.universes[u]; universe.controller == c)
        line.universes.emplace_back(u * kUniverseChannels, static_cast<std::size_t>(universe.channels));
    line.row.resize(static_cast<std::size_t>(line.light.channels()));
    lines_.push_back(std::move(line));
  }
}

std::span<const float> StripView::budgetLevels(const PixelFrame& meant, float master) {
  const PowerBudget& budget = *compiled_.budget;
  if (!budget.hasLimits()) return {};
  budget.measure(meant, master, amps_);
  // Each picture by itself: what it takes to stay within the budget at once.
  BudgetLimiter keeper(budget.supplyCount());
  budget.groupLevels(keeper.follow(amps_, budget.limits_a(), 0), levels_);
  return levels_;
}

void StripView::addLight(Line& line) {
  auto to = line.row.begin();
  for (const auto& [first, count] : line.universes)
    to = std::copy_n(values_.begin() + static_cast<std::ptrdiff_t>(first), count, to);
  constexpr float kShare = 1.f / kPeriod;
  for (std::size_t i = 0; i < line.light.count(); ++i) {
    const Rgb colour = line.light.lightOf(line.row, i);
    line.light.eachPixel(*compiled_.map, i, [&](std::uint32_t pixel) {
      // What the chips show beyond a screen's colours is cut off.
      seen_.r[pixel] += kShare * std::clamp(colour.r, 0.f, 1.f);
      seen_.g[pixel] += kShare * std::clamp(colour.g, 0.f, 1.f);
      seen_.b[pixel] += kShare * std::clamp(colour.b, 0.f, 1.f);
    });
  }
}

const PixelFrame& StripView::seen(const PixelFrame& meant, float master) {
  const auto levels = budgetLevels(meant, master);
  seen_.clear();
  for (std::uint8_t number = 0; number < kPeriod; ++number) {
    compiled_.packer->pack(meant, DitherFrame{kPeriod, number}, master, values_, levels);
    for (Line& line : lines_) addLight(line);
  }
  // A pixel that hangs in two places is no brighter for it.
  for (auto* channel : {&seen_.r, &seen_.g, &seen_.b})
    for (float& light : *channel) light = std::min(light, 1.f);
  return seen_;
}

}  // namespace chispa
