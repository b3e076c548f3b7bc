// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <array>
#include <cstdint>
#include <span>
#include <vector>

#include "core/colour/rgb.h"
#include "core/show/chipmix.h"
#include "core/show/response.h"
#include "core/wire/patch.h"

namespace chispa {

/// The way back from the values that a controller is sent to the light that they make.
class ValueLight {
 public:
  /// Whether light is as it was before ports dimmed it, or as strips show it.
  enum class Dimming { Undone, Kept };

  /// Of the `controller`th of the show.
  ValueLight(const Show& show, const Patch& patch, int controller, Dimming dimming = Dimming::Undone);

  /// Channels of all its universes in use, one universe behind the other: how long a row of values is.
  int channels() const { return channels_; }
  /// Pixels, or groups of them that share values.
  std::size_t count() const { return pixels_.size(); }
  /// Linear light of pixel or group `i` if the controller is sent `values`, channels() of them.
  Rgb lightOf(std::span<const std::uint8_t> values, std::size_t i) const;
  /// The pixel of the show that `i` is, or the first of its group.
  std::uint32_t pixelOf(const PixelMap& map, std::size_t i) const;
  /// Calls `use` with the number of each pixel of the show that `i` is.
  template <class Use>
  void eachPixel(const PixelMap& map, std::size_t i, Use use) const {
    const std::uint32_t first = pixelOf(map, i);
    for (int k = 0; k < pixels_[i].pixels; ++k)
      use(static_cast<std::uint32_t>(static_cast<std::int32_t>(first) + k * pixels_[i].step));
  }
  /// True if `i` shows the same in both.
  bool isSame(std::span<const std::uint8_t> one, std::span<const std::uint8_t> other, std::size_t i) const;
  /// True if any channel is one half of a value of 16 bits.
  bool hasWideValues() const;

 private:
  struct Kind {
    /// For each channel: its place among kChipLetters.
    std::vector<std::uint8_t> chips;
    bool isWide = false;
    ChipMix mix;
    /// Light of a chip by the coarse byte of its value.
    std::array<float, 256> light{};
    Response response = {};
    double brightness = 1;
  };
  struct Pixel {
    std::size_t kind = 0;
    std::size_t bytes = 0;
    FixtureId fixture = {};
    int pixelOfFixture = 0;
    /// How many share its values, and from one to the next.
    int pixels = 1;
    int step = 1;
    /// Where its bytes stand.
    std::array<std::uint32_t, 2 * kChips> at{};
  };

  std::vector<Kind> kinds_;
  std::vector<Pixel> pixels_;
  int channels_ = 0;
};

}  // namespace chispa
