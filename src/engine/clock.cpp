// SPDX-License-Identifier: GPL-3.0-or-later
#include "engine/clock.h"

#include <cerrno>
#include <ctime>

namespace chispa::engine {

MonoTime SteadyClock::now() const noexcept {
  timespec time{};
  clock_gettime(CLOCK_MONOTONIC, &time);
  return std::chrono::seconds(time.tv_sec) + std::chrono::nanoseconds(time.tv_nsec);
}

void SteadyClock::sleepUntil(MonoTime instant) noexcept {
  constexpr std::int64_t kSecond = 1'000'000'000;
  const timespec until{static_cast<time_t>(instant.count() / kSecond),
                       static_cast<long>(instant.count() % kSecond)};
  while (clock_nanosleep(CLOCK_MONOTONIC, TIMER_ABSTIME, &until, nullptr) == EINTR) {
  }
}

}  // namespace chispa::engine
