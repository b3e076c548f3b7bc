// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <filesystem>
#include <memory>
#include <optional>
#include <string>

#include "core/base/result.h"
#include "core/vision/picture.h"

namespace chispa::vision {

/// Where frames come from. One thread.
class FrameSource {
 public:
  virtual ~FrameSource() = default;
  /// The next frame, as soon as there is one; nothing at the end, or if the camera has gone.
  virtual std::optional<Frame> next() = 0;
  /// True if frames come at their own pace, so that LEDs must blink meanwhile.
  virtual bool isLive() const = 0;
};

/// A video file, or a folder of pictures in the order of their names; these count as taken at
/// `framesPerSecond`, unless a file times.csv in the folder (name, seconds) says more.
Result<std::unique_ptr<FrameSource>> openFrames(const std::filesystem::path& path,
                                                double framesPerSecond = 30);

/// Writes a picture as a PNG.
chispa::Outcome writePicture(const Picture& picture, const std::filesystem::path& path);

}  // namespace chispa::vision
