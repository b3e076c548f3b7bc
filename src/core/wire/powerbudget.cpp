// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/wire/powerbudget.h"

#include <algorithm>
#include <cmath>

namespace chispa {

PowerBudget::PowerBudget(const Show& show, std::span<const PowerChain> chains) : groups_(1) {
  for (const auto& supply : show.supplies) {
    ids_.push_back(supply->id);
    limits_a_.push_back(supply->limit_a);
  }
  if (ids_.empty()) return;
  for (const PowerChain& chain : chains) {
    if (chain.feeds.empty() || chain.nodes.empty()) continue;
    std::vector<std::size_t> supplies;
    for (const PowerFeed& feed : chain.feeds) supplies.push_back(static_cast<std::size_t>(feed.supply));
    std::sort(supplies.begin(), supplies.end());
    supplies.erase(std::unique(supplies.begin(), supplies.end()), supplies.end());
    const std::size_t group = groupWith(supplies);
    for (const PixelLoad& load : chain.loads)
      places_.push_back({chain.controller, chain.port, load.bead, group});
    for (const std::size_t supply : supplies) {
      hasLimits_ = hasLimits_ || limits_a_[supply] > 0;
      addLoads(chain, supply, supplies.size() == 1);
    }
  }
}

void PowerBudget::addLoads(const PowerChain& chain, std::size_t supply, bool isAlone) {
  const auto share = isAlone ? std::vector<double>() : shareOf(chain, static_cast<int>(supply));
  std::int32_t before = PowerNode::kDark;
  for (std::size_t i = 0; i < chain.nodes.size(); ++i) {
    const PowerNode& node = chain.nodes[i];
    const std::int32_t step = before == PowerNode::kDark ? 0 : node.pixel - before;
    before = node.pixel;
    if (node.pixel == PowerNode::kDark) continue;
    const PixelLoad& drawn = chain.loadOf(node);
    const auto channel_a = static_cast<float>(drawn.channel_a);
    Load* last = loads_.empty() ? nullptr : &loads_.back();
    const bool continues = last && (step == 1 || step == -1) && (last->count == 1 || last->step == step) &&
                           last->channel_a == channel_a && last->mix == drawn.mix;
    if (continues) {
      last->step = step;
      ++last->count;
    } else {
      loads_.push_back({static_cast<std::uint32_t>(node.pixel), 1, 1, channel_a, drawn.mix, supply,
                        isAlone ? kAll : shares_.size()});
    }
    if (!isAlone) shares_.push_back(static_cast<float>(share[i]));
  }
}

std::size_t PowerBudget::groupWith(const std::vector<std::size_t>& supplies) {
  const auto found = std::find(groups_.begin(), groups_.end(), supplies);
  if (found != groups_.end()) return static_cast<std::size_t>(found - groups_.begin());
  groups_.push_back(supplies);
  return groups_.size() - 1;
}

std::size_t PowerBudget::groupOf(int controller, int port, int bead) const {
  const auto found = std::find_if(places_.begin(), places_.end(), [&](const Place& p) {
    return p.controller == controller && p.port == port && p.bead == bead;
  });
  return found == places_.end() ? 0 : found->group;
}

void PowerBudget::measure(const PixelFrame& frame, float master, std::span<double> amps) const noexcept {
  std::fill(amps.begin(), amps.end(), 0.0);
  for (const Load& load : loads_) {
    double lit = 0;
    std::uint32_t pixel = load.firstPixel;
    for (std::uint32_t i = 0; i < load.count; ++i, pixel += static_cast<std::uint32_t>(load.step)) {
      const double channels = load.mix.channelsLit(frame.r[pixel], frame.g[pixel], frame.b[pixel]);
      lit += load.shares == kAll ? channels : channels * static_cast<double>(shares_[load.shares + i]);
    }
    amps[load.supply] += lit * static_cast<double>(load.channel_a * master);
  }
}

void PowerBudget::groupLevels(std::span<const float> supplyLevels, std::span<float> levels) const noexcept {
  for (std::size_t g = 0; g < groups_.size(); ++g) {
    levels[g] = 1;
    for (const std::size_t supply : groups_[g]) levels[g] = std::min(levels[g], supplyLevels[supply]);
  }
}

std::span<const float> BudgetLimiter::follow(std::span<const double> wanted_a,
                                             std::span<const double> limits_a, double seconds) noexcept {
  constexpr double kRises_s = 0.6;
  const auto ease = static_cast<float>(1 - std::exp(-std::max(0.0, seconds) / kRises_s));
  for (std::size_t i = 0; i < levels_.size(); ++i) {
    const bool isOver = limits_a[i] > 0 && wanted_a[i] > limits_a[i];
    const float allowed = isOver ? static_cast<float>(limits_a[i] / wanted_a[i]) : 1.f;
    levels_[i] = std::min(allowed, levels_[i] + (1 - levels_[i]) * ease);
  }
  return levels_;
}

}  // namespace chispa
