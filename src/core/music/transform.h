// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <cstddef>
#include <memory>
#include <span>
#include <vector>

#include "core/media/audio.h"

namespace chispa {

/// A Fourier transform of a fixed length under a Hann window, the mean of both channels. Full scale of a tone
/// has power 1. One thread at a time.
class Transform {
 public:
  /// `window` frames, an even number.
  explicit Transform(std::size_t window);
  ~Transform();
  Transform(const Transform&) = delete;
  Transform& operator=(const Transform&) = delete;

  /// Power of each bin of a window of mono sound. Valid until the next call.
  const std::vector<float>& power(std::span<const float> mono);
  /// Power of each bin of the window centred on frame `centre` of the clip; outside it there is silence.
  /// Valid until the next call.
  const std::vector<float>& power(const AudioClip& clip, std::ptrdiff_t centre);

 private:
  struct Plan;

  std::size_t window_;
  std::unique_ptr<Plan> plan_;
  std::vector<float> hann_;
  std::vector<float> both_;
  std::vector<float> mono_;
  std::vector<float> power_;
};

}  // namespace chispa
