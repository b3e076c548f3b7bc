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
  /// Of the `controller`th of the show.
  ValueLight(const Show& show, const Patch& patch, int controller);

  /// Channels of all its universes in use, one universe behind the other: how long a row of values is.
  int channels() const { return channels_; }
  /// Pixels, or groups of them that share values.
  std::size_t count() const { return pixels_.size(); }
  /// Linear light of pixel or group `i` if the controller is sent `values`, channels() of them.
  Rgb lightOf(std::span<const std::uint8_t> values, std::size_t i) const;
  /// The pixel of the show that `i` is, or the first of its group.
  std::uint32_t pixelOf(const PixelMap& map, std::size_t i) const;
  /// True if `i` shows the same in both.
  bool isSame(std::span<const std::uint8_t> one, std::span<const std::uint8_t> other, std::size_t i) const;
  /// True if any channel is one half of a value of 16 bits.
  bool hasWideValues() const;

 private:
  struct Kind {
    /// For each channel: 0 red, 1 green, 2 blue, 3 white.
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
    /// Where its bytes stand.
    std::array<std::uint32_t, 8> at{};
  };

  std::vector<Kind> kinds_;
  std::vector<Pixel> pixels_;
  int channels_ = 0;
};

}  // namespace chispa
