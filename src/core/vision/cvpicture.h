// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <opencv2/imgproc.hpp>

#include "core/vision/picture.h"

namespace chispa::vision {

// Pictures as OpenCV sees them; for the .cpp files of this folder alone.

/// A view of the picture, which must outlive it.
inline cv::Mat matOf(const Picture& picture) {
  return {picture.height, picture.width, CV_8UC1, const_cast<std::uint8_t*>(picture.light.data())};
}

/// The area's place within the picture.
inline cv::Rect rectOf(const Picture& picture, const Area& area) {
  const cv::Rect all(0, 0, picture.width, picture.height);
  return area.isAll() ? all : cv::Rect(area.x, area.y, area.width, area.height) & all;
}

/// A view of the area of the picture.
inline cv::Mat cropped(const Picture& picture, const Area& area) {
  return matOf(picture)(rectOf(picture, area));
}

}  // namespace chispa::vision
