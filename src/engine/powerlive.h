// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <atomic>
#include <memory>
#include <vector>

#include "core/wire/powerbudget.h"
#include "engine/clock.h"

namespace chispa::engine {

/// What supplies give, and how far the budget holds them back; written by the output thread, read by any.
struct PowerLive {
  explicit PowerLive(std::size_t supplies) : amps(supplies), levels(supplies) {
    for (auto& level : levels) level = 1;
  }
  /// Amps that leave each supply, after limiting.
  std::vector<std::atomic<float>> amps;
  /// 1, or less while a budget holds it back.
  std::vector<std::atomic<float>> levels;
};

/// Measures each frame and holds it within the budgets. Output thread; allocates nothing once made.
class PowerLimiter {
 public:
  PowerLimiter() : PowerLimiter(nullptr) {}
  explicit PowerLimiter(const PowerBudget* budget);

  /// Levels of the groups for `frame` at `master`; empty if no supply has a budget.
  std::span<const float> follow(const PixelFrame& frame, float master, MonoTime now) noexcept;
  const std::shared_ptr<PowerLive>& live() const { return live_; }

 private:
  const PowerBudget* budget_;
  BudgetLimiter keeper_;
  std::vector<double> wanted_;
  std::vector<float> groups_;
  std::shared_ptr<PowerLive> live_;
  MonoTime before_{0};
};

}  // namespace chispa::engine
