// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/vision/exposure.h"

#include <algorithm>
#include <cmath>
#include <vector>

#include "core/vision/cvpicture.h"

namespace chispa::vision {

Histogram histogramOf(const Picture& picture, const Area& area) {
  Histogram bins{};
  if (picture.isEmpty()) return bins;
  const cv::Mat part = cropped(picture, area);
  for (int y = 0; y < part.rows; ++y)
    for (int x = 0; x < part.cols; ++x) ++bins[part.at<std::uint8_t>(y, x) / 4];
  return bins;
}

double spotLevel(const Picture& lit, const Area& area) {
  if (lit.isEmpty()) return 0;
  const cv::Mat part = cropped(lit, area);
  cv::Mat wide, high;
  cv::GaussianBlur(part, wide, {}, 8);
  cv::dilate(part, high, cv::Mat::ones(5, 5, CV_8U));
  // A middle is as bright as anything near it, and stands out of its surroundings.
  std::vector<int> middles;
  for (int y = 0; y < part.rows; ++y)
    for (int x = 0; x < part.cols; ++x) {
      const int light = part.at<std::uint8_t>(y, x);
      if (light == high.at<std::uint8_t>(y, x) && light > wide.at<std::uint8_t>(y, x) + 14)
        middles.push_back(light);
    }
  if (middles.empty()) return 0;
  const auto at = middles.begin() + static_cast<std::ptrdiff_t>(middles.size() * 4 / 5);
  std::nth_element(middles.begin(), at, middles.end());
  return *at;
}

void ExposureSearch::tell(const Picture& lit, const Area& area) {
  constexpr double kDim = 150;
  constexpr double kWhite = 250;
  constexpr int kMaxLooks = 10;
  const double seen = spotLevel(lit, area);
  isGood_ = seen >= kDim && seen < kWhite;
  if (seen >= kWhite)
    high_ = level_;
  else if (seen < kDim)
    low_ = level_;
  isDone_ = isGood_ || ++looks_ >= kMaxLooks || (seen < kDim && level_ >= 0.999) || high_ / low_ < 1.05;
  if (!isDone_) level_ = seen < kDim && high_ >= 1 ? std::min(1.0, level_ * 2) : std::sqrt(low_ * high_);
}

}  // namespace chispa::vision
