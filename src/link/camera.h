// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <memory>

#include "core/base/result.h"
#include "core/vision/source.h"

namespace chispa::link {

/// A camera of this machine, by its number from 0 (OpenCV's capture); its frames are stamped by the steady
/// clock. Opens the device, which may take seconds; any thread.
Result<std::unique_ptr<vision::FrameSource>> openCamera(int number);

}  // namespace chispa::link
