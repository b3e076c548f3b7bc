// SPDX-License-Identifier: GPL-3.0-or-later
#include "link/camera.h"

#include <chrono>
#include <optional>
#include <string>

#include <opencv2/videoio.hpp>

#include "core/vision/cvpicture.h"

namespace chispa::link {
namespace {

class Camera final : public vision::FrameSource {
 public:
  explicit Camera(cv::VideoCapture capture) : capture_(std::move(capture)) {}

  std::optional<vision::Frame> next() override {
    cv::Mat picture;
    if (!capture_.read(picture) || picture.empty()) return std::nullopt;
    const auto now = std::chrono::steady_clock::now().time_since_epoch();
    return vision::Frame{vision::pictureOf(picture), std::chrono::duration<double>(now).count()};
  }
  bool isLive() const override { return true; }

 private:
  cv::VideoCapture capture_;
};

}  // namespace

Result<std::unique_ptr<vision::FrameSource>> openCamera(int number) {
  cv::VideoCapture capture(number);
  if (!capture.isOpened())
    return Failure{sentence("camera %1 cannot be opened", number),
                   {},
                   "plug it in, close other programs that use it, or choose another number"};
  return std::unique_ptr<vision::FrameSource>(std::make_unique<Camera>(std::move(capture)));
}

}  // namespace chispa::link
