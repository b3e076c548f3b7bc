// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <cstddef>
#include <optional>
#include <span>

#include "core/media/audio.h"

namespace chispa {

/// Sound under a finger: short grains of a clip from where it is touched, one after the other, each faded in
/// and out so that nothing clicks. One thread at a time; allocates nothing.
class Grains {
 public:
  /// Frames of a grain, and of its fades.
  static constexpr std::ptrdiff_t kLength = AudioClip::kRate * 6 / 100;
  static constexpr std::ptrdiff_t kFade = AudioClip::kRate / 125;

  /// The next grain begins at frame `at`, as soon as the one that is heard is over.
  void touch(std::ptrdiff_t at) { next_ = at; }
  /// Writes what is heard, frame by frame: silence where nothing was touched.
  void read(const AudioClip& clip, std::span<float> out);

 private:
  std::optional<std::ptrdiff_t> next_;
  std::ptrdiff_t from_ = 0;
  /// Frames of the grain that were heard.
  std::ptrdiff_t heard_ = kLength;
};

}  // namespace chispa
