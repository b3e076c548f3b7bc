// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <array>
#include <atomic>
#include <cstdint>
#include <vector>

#include "core/base/frame.h"

namespace chispa::engine {

/// The latest value (a frame, a buffer), handed from the output thread to one reader without a lock or a
/// copy: three places, of which the writer owns one, the reader one, and the third changes hands. `T` has a
/// resize().
template <class T>
class TripleBuffer {
 public:
  /// Before the threads start, or while neither uses the box.
  void resize(std::size_t size) {
    for (auto& value : values_) value.resize(size);
  }
  /// Writer: the value to fill. publish() hands it over.
  T& filling() noexcept { return values_[filling_]; }
  void publish() noexcept {
    filling_ =
        shared_.exchange(static_cast<std::uint8_t>(filling_ | kFresh), std::memory_order_acq_rel) & kPlace;
  }
  /// Writer: the reader has taken what was published last.
  bool isTaken() const noexcept { return (shared_.load(std::memory_order_relaxed) & kFresh) == 0; }
  /// Reader: the newest value published; valid until the next call.
  const T& latest() noexcept {
    if (shared_.load(std::memory_order_relaxed) & kFresh)
      reading_ = shared_.exchange(reading_, std::memory_order_acq_rel) & kPlace;
    return values_[reading_];
  }

 private:
  static constexpr std::uint8_t kPlace = 3;
  static constexpr std::uint8_t kFresh = 4;
  std::array<T, 3> values_;
  std::uint8_t filling_ = 0;
  std::atomic<std::uint8_t> shared_{1};
  std::uint8_t reading_ = 2;
};

using FrameBox = TripleBuffer<PixelFrame>;
/// Values of all universes, 512 each.
using ValueBox = TripleBuffer<std::vector<std::uint8_t>>;

}  // namespace chispa::engine
