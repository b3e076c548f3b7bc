// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <array>
#include <atomic>
#include <compare>
#include <cstdint>
#include <cstring>
#include <string>
#include <vector>

namespace chispa {

/// A rectangle of a screen, in the screen's own dots from its upper left corner.
struct ScreenPart {
  int screen = 0;
  int x = 0;
  int y = 0;
  int width = 320;
  int height = 180;

  auto operator<=>(const ScreenPart&) const = default;
};

/// A picture that changes while it is looked at. One thread writes, any number read, none waits for another:
/// a reader may see the upper part of one picture and the lower part of the next, as on a screen.
class LivePicture {
 public:
  LivePicture(int width, int height)
      : width_(width),
        height_(height),
        dots_(static_cast<std::size_t>(width) * static_cast<std::size_t>(height)) {}

  int width() const { return width_; }
  int height() const { return height_; }

  /// `rgba` has four bytes a dot: R, G, B in sRGB and how much it covers; rows from the top.
  void write(const std::uint8_t* rgba) noexcept {
    for (std::size_t i = 0; i < dots_.size(); ++i) {
      std::uint32_t dot;
      std::memcpy(&dot, rgba + 4 * i, sizeof dot);
      dots_[i].store(dot, std::memory_order_relaxed);
    }
  }
  /// The same four bytes of one dot; within bounds.
  std::array<std::uint8_t, 4> dot(int x, int y) const noexcept {
    const std::uint32_t dot =
        dots_[static_cast<std::size_t>(y) * static_cast<std::size_t>(width_) + static_cast<std::size_t>(x)]
            .load(std::memory_order_relaxed);
    std::array<std::uint8_t, 4> bytes;
    std::memcpy(bytes.data(), &dot, sizeof dot);
    return bytes;
  }

 private:
  int width_;
  int height_;
  std::vector<std::atomic<std::uint32_t>> dots_;
};

}  // namespace chispa
