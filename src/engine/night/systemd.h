// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <chrono>
#include <optional>
#include <string>
#include <utility>

#include "core/base/result.h"
#include "link/e131.h"

namespace chispa::engine {

/// Tells the service manager how it goes (sd_notify(3)); nothing happens where none started this program.
class ServiceManager {
 public:
  ServiceManager();
  void ready(const std::string& state);
  void say(const std::string& state);
  /// It lives. To be called more often than every half of watchdog().
  void feed();
  void stopping();
  /// How long it waits for a sign of life; none if it does not.
  std::optional<std::chrono::microseconds> watchdog() const { return watchdog_; }

 private:
  std::optional<std::chrono::microseconds> watchdog_;
};

/// While it lives the computer does not go to sleep by itself, nor its screen (logind's inhibitor, over
/// D-Bus).
class SleepGuard {
 public:
  /// Fails where no logind answers.
  static Result<SleepGuard> take(const std::string& why);
  SleepGuard(SleepGuard&& other) noexcept : lock_(std::exchange(other.lock_, -1)) {}
  SleepGuard& operator=(SleepGuard&& other) noexcept {
    std::swap(lock_, other.lock_);
    return *this;
  }
  ~SleepGuard();

 private:
  explicit SleepGuard(int lock) : lock_(lock) {}
  int lock_ = -1;
};

/// What this machine calls itself when it plays `show`, after a restart as before it: receivers then know it
/// for the one they heard, and do not merge it with its own last light. A random one where the machine has no
/// id (machine-id(5)).
link::Cid steadyCid(const std::string& show);

/// A systemd user unit that runs `program run SHOW --almanac`.
std::string serviceUnit(const std::string& program, const std::string& show);

}  // namespace chispa::engine
