// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <chrono>

namespace chispa::engine {

/// Monotonic time, in nanoseconds from an unspecified start.
using MonoTime = std::chrono::nanoseconds;

/// Where the engine gets its time; injected, so that tests run faster than it.
class Clock {
 public:
  virtual ~Clock() = default;
  virtual MonoTime now() const noexcept = 0;
  virtual void sleepUntil(MonoTime instant) noexcept = 0;
};

/// CLOCK_MONOTONIC; sleeps to absolute instants, so that no error adds up.
class SteadyClock final : public Clock {
 public:
  MonoTime now() const noexcept override;
  void sleepUntil(MonoTime instant) noexcept override;
};

}  // namespace chispa::engine
