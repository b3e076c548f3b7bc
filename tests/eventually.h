// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <chrono>
#include <functional>
#include <thread>

namespace chispa::test {

/// Waits for `condition` for up to ten seconds, doing `meanwhile` each time; what is tested is that it comes,
/// not when.
inline bool eventually(
    const std::function<bool()>& condition, const std::function<void()>& meanwhile = [] {}) {
  for (int i = 0; i < 1000; ++i) {
    if (condition()) return true;
    meanwhile();
    std::this_thread::sleep_for(std::chrono::milliseconds(10));
  }
  return false;
}

}  // namespace chispa::test
