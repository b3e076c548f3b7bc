// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/recording/framepacker.h"

namespace chispa {

FramePacker::FramePacker(const CompiledShow& compiled, int framesPerSecond, Dither dither)
    : compiled_(compiled),
      keeper_(compiled.budget->supplyCount()),
      amps_(compiled.budget->supplyCount()),
      levels_(compiled.budget->groupCount(), 1.f),
      values_(compiled.packer->bufferSize()),
      framesPerSecond_(framesPerSecond),
      dither_(dither) {
  renderer_.prepare(compiled);
  frame_.resize(static_cast<std::size_t>(compiled.map->count()));
}

const std::vector<std::uint8_t>& FramePacker::at(const CompiledScore& score, Micros t) {
  renderer_.render(score, t, frame_);
  return pack(frame_);
}

const std::vector<std::uint8_t>& FramePacker::pack(const PixelFrame& frame) {
  if (compiled_.budget->hasLimits()) {
    compiled_.budget->measure(frame, 1, amps_);
    compiled_.budget->groupLevels(keeper_.follow(amps_, compiled_.budget->limits_a(), 1 / framesPerSecond_),
                                  levels_);
  }
  const DitherFrame dither =
      dither_ == Dither::None ? DitherFrame{} : ditherFrame(packed_++, framesPerSecond_);
  compiled_.packer->pack(frame, dither, 1, values_, levels_);
  return values_;
}

}  // namespace chispa
