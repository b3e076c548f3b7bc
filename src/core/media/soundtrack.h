// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <memory>
#include <optional>
#include <vector>

#include "core/base/ffmpeg.h"
#include "core/media/audio.h"

namespace chispa {

/// The sound of a film that is being written: encodes a clip into a stream of its own, as far as the pictures
/// have come. Only .cpp files of core include this.
class SoundTrack {
 public:
  /// Adds a stream to `format` with the first of `encoders` that this machine has; nothing if it has none.
  static std::optional<SoundTrack> open(AVFormatContext* format, const std::vector<const char*>& encoders,
                                        std::shared_ptr<const AudioClip> clip, Micros from);

  /// Writes sound up to `end_s` of the film; silence where the clip has ended, or not begun. False if it
  /// cannot.
  bool writeUntil(double end_s);
  /// Writes what the encoder still holds.
  bool finish();

 private:
  SoundTrack() = default;
  bool writeFrame();
  bool encode(const AVFrame* frame);

  AVFormatContext* format_ = nullptr;
  AVStream* stream_ = nullptr;
  ffmpeg::Codec codec_;
  ffmpeg::Resampler converter_;
  ffmpeg::Frame frame_{av_frame_alloc()};
  ffmpeg::Packet packet_{av_packet_alloc()};
  std::shared_ptr<const AudioClip> clip_;
  std::vector<float> samples_;
  /// Of the clip; negative before it begins.
  std::int64_t first_ = 0;
  std::int64_t written_ = 0;
};

}  // namespace chispa
