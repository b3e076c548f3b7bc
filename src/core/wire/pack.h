// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <algorithm>
#include <array>
#include <bit>
#include <cstdint>
#include <span>
#include <vector>

#include "core/base/frame.h"
#include "core/show/response.h"
#include "core/wire/dither.h"
#include "core/wire/patch.h"
#include "core/wire/powerbudget.h"

namespace chispa {

/// Turns linear light into the values of 8-bit or 16-bit channels, as one response asks for: exact to a
/// fraction of a 16-bit step from the dimmest light on. Of 8 bits, light between two values is counted by
/// their lights: where it lies a third of the way from one to the other, a third of the frames show the
/// other.
class ResponseTable {
 public:
  explicit ResponseTable(const Response& response = {}, int bits = 16);

  /// Value for `light` 0–1. `threshold` 0–255 is where between two values the upper one is taken; see
  /// DitherTables.
  std::uint8_t value(float light, std::uint32_t threshold) const {
    return static_cast<std::uint8_t>(
        (static_cast<std::uint32_t>(shareOf(light) * k256thsOfFull + 0.5f) + threshold) >> 8);
  }

  /// The same for `count` values at once.
  void values(const float* light, const std::uint8_t* thresholds, std::size_t count,
              std::uint8_t* out) const noexcept;

  /// Value of 0–65,535 for `light` 0–1.
  std::uint16_t wideValue(float light) const {
    return static_cast<std::uint16_t>(shareOf(light) * 65535.0f + 0.5f);
  }

 private:
  /// Light is looked up by its power of two and the first digits behind it, so that dim light is as exact as
  /// bright.
  static constexpr int kSmallest = -40;
  static constexpr float k256thsOfFull = 255 * 256;
  struct Entry {
    float from;
    float rise;
  };

  /// In this order of arguments what is no number becomes dark.
  static float held(float light) { return std::min(1.f, std::max(0.f, light)); }
  float fromTable(float light) const;
  /// Share of the largest value.
  float shareOf(float light) const { return isEven_ ? held(light) : fromTable(held(light)); }

  bool isEven_;
  /// Binary digits behind the power of two that are looked up: more where a curve may have bends.
  int digits_;
  /// What one of the digits that are left counts of an entry.
  float restStep_;
  float darkBelow_;
  float least_;
  std::vector<Entry> table_;
};

inline float ResponseTable::fromTable(float light) const {
  // Binary numbers of IEEE 754: the power of two, and 23 digits behind it.
  const int rest = 23 - digits_;
  const float seen = std::max(light, 0x1p-40f);
  const std::uint32_t bits = std::bit_cast<std::uint32_t>(seen) - (std::uint32_t{127 + kSmallest} << 23);
  const Entry& entry = table_[bits >> rest];
  const float share = static_cast<float>(bits & ((1U << rest) - 1)) * restStep_;
  const float value = light < 0x1p-40f ? 0 : entry.from + entry.rise * share;
  return value >= least_ ? value : value < darkBelow_ ? 0 : least_;
}

/// The patch made ready: one flat list of equal steps, and a buffer of 512 channels for each universe.
class Packer {
 public:
  Packer(const Show& show, const PixelMap& map, const Patch& patch, const PowerBudget& budget);

  std::size_t universeCount() const { return used_.size(); }
  /// Size of a buffer for all universes.
  std::size_t bufferSize() const { return used_.size() * kUniverseChannels; }
  /// Channels of universe `i` in use, from the first.
  int channelsOf(std::size_t i) const { return used_[i]; }

  /// Writes the values of `frame`, scaled by `master` 0–1, into `buffer` (bufferSize() bytes; what is not
  /// wired keeps what it holds). `dither` has an entry for each controller of the show; one that does not
  /// dither gets the nearest values. `levels` 0–1 scale the groups of the power budget; none if empty.
  /// Allocates nothing.
  void pack(const PixelFrame& frame, std::span<const DitherFrame> dither, float master,
            std::span<std::uint8_t> buffer, std::span<const float> levels = {}) const noexcept;
  /// The steps that pack() does, and some of them: they write different bytes.
  std::size_t stepCount() const { return steps_.size(); }
  void packSteps(std::size_t first, std::size_t count, const PixelFrame& frame,
                 std::span<const DitherFrame> dither, float master, std::span<std::uint8_t> buffer,
                 std::span<const float> levels) const noexcept;
  /// The same with all controllers at the same frame.
  void pack(const PixelFrame& frame, DitherFrame dither, float master, std::span<std::uint8_t> buffer,
            std::span<const float> levels = {}) const noexcept;

 private:
  struct Step {
    std::uint32_t firstPixel;
    std::int32_t step;
    std::uint32_t count;
    std::uint32_t byte;
    std::uint8_t channels;
    std::uint32_t response;
    /// For each channel: its place among kChipLetters.
    std::array<std::uint8_t, kChips> order;
    ChipMix mix;
    bool isWide;
    float brightness;
    /// Pixels of a value, of the last value, and which bytes of a split value are here.
    std::uint32_t group;
    std::uint32_t pixels;
    std::uint8_t firstByte;
    std::uint8_t bytes;
    std::size_t powerGroup;
    std::uint32_t controller;
    bool dithers;
    /// Its pixels follow each other along the line of dithering places.
    bool isLine;
  };
  void packStep(const Step& step, const PixelFrame& frame, DitherFrame dither, float master,
                std::span<std::uint8_t> buffer, std::span<const float> levels) const noexcept;
  /// Values that are groups of pixels, or split over two universes; the rest goes the short way.
  void packValues(const Step& step, const PixelFrame& frame, DitherFrame dither, float master,
                  std::uint8_t* out) const noexcept;
  void packPlain(const Step& step, const PixelFrame& frame, DitherFrame dither, float master,
                 std::uint8_t* out) const noexcept;
  const std::uint8_t* thresholds(const Step& step, std::uint32_t first, std::size_t count, DitherFrame dither,
                                 int channel, std::span<std::uint8_t> room) const noexcept;

  bool isLine(std::size_t first, std::size_t count) const;

  const DitherTables& tables_ = DitherTables::get();
  std::vector<Step> steps_;
  std::vector<ResponseTable> responses_;
  std::vector<int> used_;
  /// By pixel; see DitherTables.
  std::vector<std::uint16_t> places_;
};

/// What an 8-bit RGB pixel shows before channel order, each value the nearest: the command `frame` prints it.
std::array<std::uint8_t, 3> rgbValues(const PixelFrame& frame, std::size_t pixel);

}  // namespace chispa
