// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <cstdint>
#include <span>
#include <vector>

#include "core/base/frame.h"
#include "core/show/show.h"
#include "core/wire/powernet.h"

namespace chispa {

/// What each supply gives to each pixel, made ready to be measured at every frame. Beads that are fed by the
/// same supplies make a group, which is dimmed as one.
class PowerBudget {
 public:
  PowerBudget(const Show& show, std::span<const PowerChain> chains);

  std::size_t supplyCount() const { return limits_a_.size(); }
  SupplyId supplyAt(std::size_t i) const { return ids_[i]; }
  /// Most amps of each supply, 0 where there is no budget.
  std::span<const double> limits_a() const { return limits_a_; }
  /// True if some supply has a budget and feeds something.
  bool hasLimits() const { return hasLimits_; }
  /// Group 0 is what no supply feeds.
  std::size_t groupCount() const { return groups_.size(); }
  std::size_t groupOf(int controller, int port, int bead) const;

  /// Amps of each supply as `frame` lights its pixels at `master` 0–1. Allocates nothing.
  void measure(const PixelFrame& frame, float master, std::span<double> amps) const noexcept;
  /// The level 0–1 of each group: the least of its supplies'. Allocates nothing.
  void groupLevels(std::span<const float> supplyLevels, std::span<float> levels) const noexcept;

 private:
  /// Pixels in a row that draw alike.
  struct Load {
    std::uint32_t firstPixel;
    std::int32_t step;
    std::uint32_t count;
    float channel_a;
    ChipMix mix;
    std::size_t supply;
    /// Where its shares begin; kAll if the supply gives all.
    std::size_t shares;
  };
  static constexpr std::size_t kAll = static_cast<std::size_t>(-1);
  struct Place {
    int controller;
    int port;
    int bead;
    std::size_t group;
  };
  void addLoads(const PowerChain& chain, std::size_t supply, bool isAlone);
  std::size_t groupWith(const std::vector<std::size_t>& supplies);

  std::vector<SupplyId> ids_;
  std::vector<double> limits_a_;
  bool hasLimits_ = false;
  std::vector<Load> loads_;
  std::vector<float> shares_;
  std::vector<std::vector<std::size_t>> groups_;
  std::vector<Place> places_;
};

/// Holds supplies within their budgets from frame to frame: down at once, up again slowly, so that nothing
/// pumps.
class BudgetLimiter {
 public:
  explicit BudgetLimiter(std::size_t supplies) : levels_(supplies, 1.f) {}

  /// Level 0–1 of each supply for a frame that would draw `wanted_a`, `seconds` after the last.
  std::span<const float> follow(std::span<const double> wanted_a, std::span<const double> limits_a,
                                double seconds) noexcept;

 private:
  std::vector<float> levels_;
};

}  // namespace chispa
