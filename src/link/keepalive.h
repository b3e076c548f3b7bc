// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <algorithm>
#include <chrono>

namespace chispa::link {

/// When values that do not change are sent again: three times, then at least every 0.8 s (E1.31 §6.6.2;
/// Art-Net 4).
class KeepAlive {
 public:
  using Instant = std::chrono::nanoseconds;

  /// True if the values must go out at `now`, which is remembered then; `isForced` sends them whatever they
  /// are.
  bool isDue(bool changed, bool isForced, Instant now) noexcept {
    repeats_ = changed ? 0 : std::min(repeats_ + 1, kRepeats + 1);
    const bool due = isForced || repeats_ <= kRepeats || now - sentAt_ >= kLongest;
    if (due) sentAt_ = now;
    return due;
  }
  /// What comes next counts as changed.
  void restart() noexcept { repeats_ = 0; }

 private:
  static constexpr int kRepeats = 3;
  static constexpr std::chrono::milliseconds kLongest{800};

  int repeats_ = 0;
  Instant sentAt_{-1'000'000'000'000};
};

}  // namespace chispa::link
