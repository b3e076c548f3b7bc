// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/music/grains.h"

#include <algorithm>

namespace chispa {

void Grains::read(const AudioClip& clip, std::span<float> out) {
  const auto frames = static_cast<std::ptrdiff_t>(out.size() / AudioClip::kChannels);
  for (std::ptrdiff_t done = 0; done < frames;) {
    if (heard_ >= kLength && next_) {
      from_ = *next_;
      heard_ = 0;
      next_.reset();
    }
    const std::ptrdiff_t now = heard_ < kLength ? std::min(frames - done, kLength - heard_) : frames - done;
    const std::span part = out.subspan(static_cast<std::size_t>(done) * AudioClip::kChannels,
                                       static_cast<std::size_t>(now) * AudioClip::kChannels);
    done += now;
    if (heard_ >= kLength) {
      std::fill(part.begin(), part.end(), 0.f);
      continue;
    }
    clip.read(from_ + heard_, part);
    for (std::ptrdiff_t i = 0; i < now; ++i) {
      const std::ptrdiff_t place = heard_ + i;
      const std::ptrdiff_t fromEdge = std::min(place, kLength - 1 - place);
      const float level = std::min(1.f, static_cast<float>(fromEdge) / static_cast<float>(kFade));
      for (std::size_t c = 0; c < AudioClip::kChannels; ++c)
        part[static_cast<std::size_t>(i) * AudioClip::kChannels + c] *= level;
    }
    heard_ += now;
  }
}

}  // namespace chispa
