// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <array>
#include <atomic>
#include <cstdint>

#include "core/render/frame.h"

namespace chispa::engine {

/// The latest frame, handed from the output thread to one reader without a lock or a copy: three places, of which the
/// writer owns one, the reader one, and the third changes hands.
class FrameBox {
 public:
  /// Before the threads start, or while neither uses the box.
  void resize(std::size_t pixels) {
    for (auto& frame : frames_) frame.resize(pixels);
  }
  /// Writer: the frame to fill. publish() hands it over.
  PixelFrame& filling() noexcept { return frames_[filling_]; }
  void publish() noexcept {
    filling_ = shared_.exchange(static_cast<std::uint8_t>(filling_ | kFresh), std::memory_order_acq_rel) & kPlace;
  }
  /// Reader: the newest frame published; valid until the next call.
  const PixelFrame& latest() noexcept {
    if (shared_.load(std::memory_order_relaxed) & kFresh)
      reading_ = shared_.exchange(reading_, std::memory_order_acq_rel) & kPlace;
    return frames_[reading_];
  }

 private:
  static constexpr std::uint8_t kPlace = 3;
  static constexpr std::uint8_t kFresh = 4;
  std::array<PixelFrame, 3> frames_;
  std::uint8_t filling_ = 0;
  std::atomic<std::uint8_t> shared_{1};
  std::uint8_t reading_ = 2;
};

}  // namespace chispa::engine
