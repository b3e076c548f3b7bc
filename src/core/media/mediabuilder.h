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

  /// Adds a picture. What has no size, or is too large to be scaled, is left out.
  void add(const ffmpeg::Picture& picture) {
    if (picture.width < 1 || picture.height < 1) return;
    if (media_->width == 0) {
      const double scale =
          std::min(1.0, static_cast<double>(MediaLimits::kMaxSide) / std::max(picture.width, picture.height));
      media_->width = std::max(1, static_cast<int>(picture.width * scale));
      media_->height = std::max(1, static_cast<int>(picture.height * scale));
    }
    if (scaler_.append(picture, media_->width, media_->height, media_->rgba)) ++media_->frames;
  }

 private:
  ffmpeg::PictureScaler scaler_{AV_PIX_FMT_RGBA, 4, SWS_AREA};
  std::shared_ptr<Media> media_ = std::make_shared<Media>();
};

}  // namespace chispa
