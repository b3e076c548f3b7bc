// SPDX-License-Identifier: GPL-3.0-or-later
#include "engine/stats.h"

#include <algorithm>

namespace chispa::engine {

void LatenessHistogram::add(MonoTime late) noexcept {
  const auto step =
      std::clamp<std::int64_t>(late.count() / (kStep_us * 1000), 0, static_cast<std::int64_t>(kSteps));
  counts_[static_cast<std::size_t>(step)].fetch_add(1, std::memory_order_relaxed);
  if (late.count() > most_ns_.load(std::memory_order_relaxed))
    most_ns_.store(late.count(), std::memory_order_relaxed);
}

double LatenessHistogram::percentile_ms(double share) const {
  std::uint64_t all = 0;
  for (const auto& count : counts_) all += count.load(std::memory_order_relaxed);
  if (all == 0) return 0;
  const auto wanted = share * static_cast<double>(all);
  std::uint64_t passed = 0;
  for (std::size_t i = 0; i < counts_.size(); ++i) {
    passed += counts_[i].load(std::memory_order_relaxed);
    if (static_cast<double>(passed) >= wanted) return static_cast<double>(i + 1) * kStep_us * 1e-3;
  }
  return most_ms();
}

}  // namespace chispa::engine
