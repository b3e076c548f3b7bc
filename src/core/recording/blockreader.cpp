// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/recording/blockreader.h"

#include <algorithm>

#include <zstd.h>

namespace chispa {
namespace {

constexpr std::size_t kPiece = 64 << 10;

}  // namespace

struct BlockReader::Zstd {
  Zstd() : context(ZSTD_createDCtx()) { ZSTD_DCtx_setParameter(context, ZSTD_d_windowLogMax, kWindowLog); }
  ~Zstd() { ZSTD_freeDCtx(context); }
  Zstd(const Zstd&) = delete;
  Zstd& operator=(const Zstd&) = delete;

  ZSTD_DCtx* context;
  ZSTD_inBuffer input{nullptr, 0, 0};
  /// What ZSTD_decompressStream() said last: 0 when the frame is complete, its checksum included.
  std::size_t wanted = 1;
};

BlockReader::BlockReader(std::istream& in, std::uint32_t packed, std::uint32_t frames, std::size_t frameSize)
    : in_(in),
      zstd_(std::make_unique<Zstd>()),
      packedLeft_(packed),
      framesLeft_(frames),
      packed_(kPiece),
      change_(frameSize),
      values_(frameSize, 0) {}

BlockReader::~BlockReader() = default;

bool BlockReader::fill(std::span<std::uint8_t> out) {
  ZSTD_outBuffer output{out.data(), out.size(), 0};
  while (output.pos < output.size && zstd_->wanted != 0) {
    if (zstd_->input.pos == zstd_->input.size) {
      const auto piece = std::min<std::size_t>(packedLeft_, kPiece);
      if (piece == 0 ||
          !in_.read(reinterpret_cast<char*>(packed_.data()), static_cast<std::streamsize>(piece)))
        break;
      packedLeft_ -= static_cast<std::uint32_t>(piece);
      zstd_->input = {packed_.data(), piece, 0};
    }
    zstd_->wanted = ZSTD_decompressStream(zstd_->context, &output, &zstd_->input);
    if (ZSTD_isError(zstd_->wanted)) break;
  }
  return output.pos == output.size && !ZSTD_isError(zstd_->wanted);
}

/// The zstd frame must end where the last frame of values does; asking for more lets it check its sum.
bool BlockReader::endsHere() {
  std::uint8_t beyond = 0;
  return !fill(std::span(&beyond, 1)) && zstd_->wanted == 0;
}

bool BlockReader::next() {
  if (framesLeft_ == 0 || isDamaged_) return false;
  std::uint8_t stamp[sizeof(std::int64_t)];
  if (!fill(stamp) || !fill(change_)) {
    isDamaged_ = true;
    return false;
  }
  std::uint64_t time = 0;
  for (std::size_t i = 0; i < sizeof stamp; ++i) time |= static_cast<std::uint64_t>(stamp[i]) << (8 * i);
  time_ = Micros(static_cast<std::int64_t>(time));
  std::transform(
      values_.begin(), values_.end(), change_.begin(), values_.begin(),
      [](std::uint8_t before, std::uint8_t change) { return static_cast<std::uint8_t>(before ^ change); });
  if (--framesLeft_ == 0 && !endsHere()) isDamaged_ = true;
  return true;
}

}  // namespace chispa
