// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <array>
#include <cstdint>
#include <optional>
#include <string>
#include <vector>

#include "core/base/frame.h"
#include "core/base/result.h"
#include "core/show/chipmix.h"
#include "core/show/show.h"
#include "core/zone/pixelmap.h"
#include "core/zone/pixelrow.h"

namespace chispa::board {

/// What hangs on a board's data line, one row behind the other.
using BoardRun = PixelRow;

/// The strip on a board's one data line: runs one behind the other, all of one kind of strip.
class BoardStrip {
 public:
  /// Most pixels of a row: their numbers have 16 bits, and so has the number of bytes.
  static constexpr int kMaxBytes = 65535;

  /// `pixelsPerValue` neighbours share a value. A pixel that is named twice counts once. Fails if nothing is
  /// left of the runs, or if they are of strips that a board cannot mix.
  static Result<BoardStrip> of(const Show& show, const PixelMap& map, const std::vector<BoardRun>& runs,
                               int pixelsPerValue);

  /// Pixels of the strip; values that it is told; channels of a value.
  int pixelCount() const { return static_cast<int>(pixels_.size()); }
  /// Their numbers in PixelMap, in the order of the data line.
  const std::vector<std::uint32_t>& pixels() const { return pixels_; }
  int valueCount() const { return (pixelCount() + perValue_ - 1) / perValue_; }
  int channels() const { return static_cast<int>(order_.size()); }
  int pixelsPerValue() const { return perValue_; }
  /// Bytes of all pixels.
  int byteCount() const { return pixelCount() * channels(); }
  const std::string& order() const { return order_; }
  const Response& response() const { return response_; }
  const ChipMix& mix() const { return mix_; }
  /// Milliamperes of a channel at full.
  double channel_ma() const { return channel_ma_; }
  double volts() const { return volts_; }

  /// The pixel of the show, by its number in PixelMap, in the middle of a value's pixels.
  std::uint32_t middleOf(int value) const;
  /// The value of a pixel of the show, or nothing if it is not on the strip.
  std::optional<std::uint16_t> valueOf(std::uint32_t pixel) const;
  /// What the values are told to show `frame`: the mean of their pixels, to the nearest byte.
  std::vector<std::uint8_t> bytesOf(const PixelFrame& frame) const;
  /// The same with each value as its middle pixel would be told: what programs compute.
  std::vector<std::uint8_t> middleBytesOf(const PixelFrame& frame) const;
  /// Which colour each channel has, as boards number them: 0 red, 1 green, 2 blue, 3 white.
  std::vector<std::uint8_t> colourOfChannel() const;
  /// The linear light that a value's bytes give.
  Rgb lightOf(const std::uint8_t* bytes) const;
  /// Light, of 65,536, from which on a channel's value is 1, 2 … 255; empty for a response of 1.
  std::vector<std::uint16_t> thresholds() const;

 private:
  void takePixels(const Show& show, const PixelMap& map, const std::vector<BoardRun>& runs);
  std::uint8_t byteOf(float light) const;
  void putBytes(Rgb light, std::vector<std::uint8_t>& bytes) const;

  std::vector<std::uint32_t> pixels_;
  std::vector<int> valueOf_;
  int perValue_ = 1;
  std::string order_;
  Response response_ = {};
  ChipMix mix_;
  double channel_ma_ = 0;
  double volts_ = 5;
};

}  // namespace chispa::board
