// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <cstdint>
#include <istream>
#include <memory>
#include <span>
#include <vector>

#include "core/base/time.h"

namespace chispa {

/// Unpacks one block of a recording frame by frame (docs/recording.md), so that whatever the file says of its
/// size, no more memory is taken than two frames and a window of kWindowLog bits. One thread; the stream must
/// outlive it.
class BlockReader {
 public:
  /// 2²⁷ bytes, more than any block of ours needs.
  static constexpr int kWindowLog = 27;

  /// `in` stands at the block's packed bytes, of which there are `packed`, for `frames` frames of `frameSize`
  /// values.
  BlockReader(std::istream& in, std::uint32_t packed, std::uint32_t frames, std::size_t frameSize);
  ~BlockReader();
  BlockReader(const BlockReader&) = delete;
  BlockReader& operator=(const BlockReader&) = delete;

  /// Goes on to the next frame; false behind the last, or if the block is damaged.
  bool next();
  /// The block did not hold what it said, or its checksum is wrong. Known at its end at the latest.
  bool isDamaged() const { return isDamaged_; }
  Micros time() const { return time_; }
  std::span<const std::uint8_t> values() const { return values_; }

 private:
  struct Zstd;

  bool fill(std::span<std::uint8_t> out);
  bool endsHere();

  std::istream& in_;
  std::unique_ptr<Zstd> zstd_;
  std::uint32_t packedLeft_;
  std::uint32_t framesLeft_;
  std::vector<std::uint8_t> packed_;
  std::vector<std::uint8_t> change_;
  std::vector<std::uint8_t> values_;
  Micros time_{0};
  bool isDamaged_ = false;
};

}  // namespace chispa
