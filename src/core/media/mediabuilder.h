// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <algorithm>

#include "core/base/ffmpeg.h"
#include "core/media/media.h"

namespace chispa {

/// Why a picture cannot be shown, and what can be.
inline Failure pictureFailure(const std::string& path, Sentence what) {
  return {std::move(what), path, "Choose another file; PNG, JPEG, GIF, WebP, MP4, WebM and AVI are read."};
}

/// Collects the pictures of a Media, each made as small as LEDs need it. Only .cpp files of core include
/// this.
class MediaBuilder {
 public:
  bool isFull() const { return media_->rgba.size() >= MediaLimits::kMaxBytes; }
  Media& media() { return *media_; }
  std::shared_ptr<Media> take() { return std::move(media_); }

  /// Adds a picture of that size and kind: planes and lines as FFmpeg has them. What has no size, or is too
  /// large to be scaled, is left out.
  void add(const std::uint8_t* const planes[], const int lines[], int wide, int tall, AVPixelFormat kind) {
    if (wide < 1 || tall < 1) return;
    if (media_->width == 0) {
      const double scale = std::min(1.0, static_cast<double>(MediaLimits::kMaxSide) / std::max(wide, tall));
      media_->width = std::max(1, static_cast<int>(wide * scale));
      media_->height = std::max(1, static_cast<int>(tall * scale));
    }
    scaler_.reset(sws_getCachedContext(scaler_.release(), wide, tall, kind, media_->width, media_->height,
                                       AV_PIX_FMT_RGBA, SWS_AREA, nullptr, nullptr, nullptr));
    if (!scaler_) return;
    const std::size_t before = media_->rgba.size();
    const int line = media_->width * 4;
    const std::size_t size = static_cast<std::size_t>(line) * static_cast<std::size_t>(media_->height);
    // The scaler writes some dots at once, and beyond the end of the last row.
    constexpr std::size_t kBeyond = 64;
    media_->rgba.resize(before + size + kBeyond);
    std::uint8_t* rows[] = {media_->rgba.data() + before};
    const int rowBytes[] = {line};
    sws_scale(scaler_.get(), planes, lines, 0, tall, rows, rowBytes);
    media_->rgba.resize(before + size);
    ++media_->frames;
  }

 private:
  ffmpeg::Scaler scaler_;
  std::shared_ptr<Media> media_ = std::make_shared<Media>();
};

}  // namespace chispa
