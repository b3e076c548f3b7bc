// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <algorithm>

#include "engine/clock.h"

namespace chispa::engine {

/// A clock that stands until a test lets time pass.
class HandClock final : public Clock {
 public:
  MonoTime now() const noexcept override { return now_; }
  void sleepUntil(MonoTime instant) noexcept override { now_ = std::max(now_, instant); }
  void pass(MonoTime time) { now_ += time; }

 private:
  MonoTime now_{std::chrono::hours(1)};
};

}  // namespace chispa::engine
