// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <optional>

#include "core/media/audio.h"

namespace chispa {

/// Collects sound as it is made and gives it back as a clip: in memory, or, beyond kMaxInMemory frames, in a
/// file that has no name and goes with the clip. One thread.
class AudioStore {
 public:
  /// About six minutes.
  static constexpr std::size_t kMaxInMemory = std::size_t{6} * 60 * AudioClip::kRate;

  AudioStore();
  ~AudioStore();
  AudioStore(AudioStore&&) noexcept;
  AudioStore& operator=(AudioStore&&) noexcept;

  /// Appends interleaved frames; false if there was no room for them on the disk.
  bool add(std::span<const float> samples);
  std::size_t frames() const { return frames_; }
  /// What was collected, with silence behind it or without its end where it has to have `frames`.
  std::shared_ptr<const AudioClip> take(std::optional<std::size_t> frames = {});

 private:
  class File;

  std::shared_ptr<AudioBuffer> buffer_ = std::make_shared<AudioBuffer>();
  std::shared_ptr<File> file_;
  std::size_t frames_ = 0;
};

}  // namespace chispa
