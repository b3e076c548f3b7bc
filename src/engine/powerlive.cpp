// SPDX-License-Identifier: GPL-3.0-or-later
#include "engine/powerlive.h"

namespace chispa::engine {

PowerLimiter::PowerLimiter(const PowerBudget* budget)
    : budget_(budget),
      keeper_(budget ? budget->supplyCount() : 0),
      wanted_(budget ? budget->supplyCount() : 0),
      groups_(budget ? budget->groupCount() : 0),
      live_(std::make_shared<PowerLive>(wanted_.size())) {}

std::span<const float> PowerLimiter::follow(const PixelFrame& frame, float master, MonoTime now) noexcept {
  if (wanted_.empty()) return {};
  budget_->measure(frame, master, wanted_);
  const double seconds = static_cast<double>((now - before_).count()) * 1e-9;
  before_ = now;
  const auto levels = keeper_.follow(wanted_, budget_->limits_a(), seconds);
  for (std::size_t i = 0; i < levels.size(); ++i) {
    live_->levels[i].store(levels[i], std::memory_order_relaxed);
    live_->amps[i].store(static_cast<float>(wanted_[i]) * levels[i], std::memory_order_relaxed);
  }
  if (!budget_->hasLimits()) return {};
  budget_->groupLevels(levels, groups_);
  return groups_;
}

}  // namespace chispa::engine
