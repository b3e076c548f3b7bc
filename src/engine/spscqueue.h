// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <array>
#include <atomic>
#include <cstddef>
#include <cstdint>
#include <optional>
#include <type_traits>

namespace chispa::engine {

/// A queue from one thread to one other, without locks or allocation. What finds no room is dropped and
/// counted.
template <class T, std::size_t kRoom>
class SpscQueue {
  static_assert((kRoom & (kRoom - 1)) == 0 && std::is_trivially_copyable_v<T>);

 public:
  /// Writer: false, and counted, if there is no room.
  bool tryPush(const T& item) noexcept {
    const std::size_t tail = tail_.load(std::memory_order_relaxed);
    if (tail - head_.load(std::memory_order_acquire) == kRoom) {
      dropped_.fetch_add(1, std::memory_order_relaxed);
      return false;
    }
    items_[tail & (kRoom - 1)] = item;
    tail_.store(tail + 1, std::memory_order_release);
    return true;
  }
  /// Reader: the oldest item, or nothing.
  std::optional<T> tryPop() noexcept {
    const std::size_t head = head_.load(std::memory_order_relaxed);
    if (head == tail_.load(std::memory_order_acquire)) return std::nullopt;
    const T item = items_[head & (kRoom - 1)];
    head_.store(head + 1, std::memory_order_release);
    return item;
  }
  /// Any thread: how many were dropped so far.
  std::uint64_t dropped() const noexcept { return dropped_.load(std::memory_order_relaxed); }

 private:
  std::array<T, kRoom> items_{};
  alignas(64) std::atomic<std::size_t> head_{0};
  alignas(64) std::atomic<std::size_t> tail_{0};
  std::atomic<std::uint64_t> dropped_{0};
};

}  // namespace chispa::engine
