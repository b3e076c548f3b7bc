// SPDX-License-Identifier: GPL-3.0-or-later
#include "engine/night/wallclock.h"

#include <sys/timex.h>

namespace chispa::engine {

bool SystemWallClock::isInStep() const {
  timex state{};
  // What adjtimex(2) says: the kernel is told by whoever keeps the clock.
  return ::adjtimex(&state) != TIME_ERROR && (state.status & STA_UNSYNC) == 0;
}

WallTime RehearsalClock::now() const {
  const auto passed = static_cast<double>((SteadyClock().now() - since_).count()) * speed_ * 1e-6;
  return begin_ + std::chrono::milliseconds(static_cast<std::int64_t>(passed));
}

}  // namespace chispa::engine
