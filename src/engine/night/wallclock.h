// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <chrono>

#include "engine/clock.h"

namespace chispa::engine {

/// An instant of the calendar, to the millisecond.
using WallTime = std::chrono::sys_time<std::chrono::milliseconds>;

/// Tells what time it is; injected, so that nights can be rehearsed.
class WallClock {
 public:
  virtual ~WallClock() = default;
  virtual WallTime now() const = 0;
  /// Whether the system says that its clock is in step with others.
  virtual bool isInStep() const { return true; }
};

/// The computer's own clock.
class SystemWallClock final : public WallClock {
 public:
  WallTime now() const override {
    return std::chrono::floor<std::chrono::milliseconds>(std::chrono::system_clock::now());
  }
  bool isInStep() const override;
};

/// As if it were then when it was made, and `speed` times as fast from there.
class RehearsalClock final : public WallClock {
 public:
  RehearsalClock(WallTime begin, double speed) : begin_(begin), speed_(speed), since_(SteadyClock().now()) {}
  WallTime now() const override;
  /// As if someone had set the clock.
  void shift(std::chrono::milliseconds by) { begin_ += by; }

 private:
  WallTime begin_;
  double speed_;
  MonoTime since_;
};

}  // namespace chispa::engine
