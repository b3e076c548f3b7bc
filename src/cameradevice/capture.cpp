// SPDX-License-Identifier: GPL-3.0-or-later
#include <memory>

#include <opencv2/imgproc.hpp>
#include <opencv2/videoio.hpp>

#include "link/cameramodule.h"

namespace {

struct Capture {
  // Video for Linux: other ways in would start libraries that print what they miss.
  explicit Capture(int number) : device(number, cv::CAP_V4L2) {}

  cv::VideoCapture device;
  cv::Mat picture;
  cv::Mat grey;
};

}  // namespace

void* chispa_camera_open(int number) try {
  auto capture = std::make_unique<Capture>(number);
  return capture->device.isOpened() ? capture.release() : nullptr;
} catch (const cv::Exception&) {
  // It throws where it might say that it is not open.
  return nullptr;
}

const unsigned char* chispa_camera_next(void* camera, int* width, int* height) try {
  auto& capture = *static_cast<Capture*>(camera);
  if (!capture.device.read(capture.picture) || capture.picture.empty()) return nullptr;
  if (capture.picture.channels() == 1)
    capture.picture.copyTo(capture.grey);
  else
    cv::cvtColor(capture.picture, capture.grey, cv::COLOR_BGR2GRAY);
  *width = capture.grey.cols;
  *height = capture.grey.rows;
  return capture.grey.ptr();
} catch (const cv::Exception&) {
  // As one that has gone.
  return nullptr;
}

void chispa_camera_close(void* camera) {
  delete static_cast<Capture*>(camera);
}
