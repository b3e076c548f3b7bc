// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/media/audio.h"

namespace chispa::test {

/// The mean of both channels of a whole clip.
inline std::vector<float> monoOf(const AudioClip& clip) {
  std::vector<float> all;
  eachMonoBlock(clip, [&](std::span<const float> block, std::size_t) {
    all.insert(all.end(), block.begin(), block.end());
  });
  return all;
}

}  // namespace chispa::test
