// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/recording/framepacker.h"

namespace chispa {

FramePacker::FramePacker(const CompiledShow& compiled, int framesPerSecond, Dither dither)
    : compiled_(compiled),
      keeper_(compiled.budget->supplyCount()),
      amps_(compiled.budget->supplyCount()),
      levels_(compiled.budget->groupCount(), 1.f),
      values_(compiled.packer->bufferSize()),
      frame_s_(1.0 / framesPerSecond),
      dither_(dither) {
  renderer_.prepare(compiled);
  frame_.resize(static_cast<std::size_t>(compiled.map.count()));
}

const std::vector<std::uint8_t>& FramePacker::at(const CompiledScore& score, Micros t) {
  renderer_.render(score, t, frame_);
  return pack(frame_, t);
}

const std::vector<std::uint8_t>& FramePacker::pack(const PixelFrame& frame, Micros t) {
  if (compiled_.budget->hasLimits()) {
    compiled_.budget->measure(frame, 1, amps_);
    compiled_.budget->groupLevels(keeper_.follow(amps_, compiled_.budget->limits_a(), frame_s_), levels_);
  }
  compiled_.packer->pack(frame, t, 1, values_, levels_, dither_);
  return values_;
}

}  // namespace chispa
