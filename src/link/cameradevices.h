// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <filesystem>
#include <string>
#include <vector>

namespace chispa::link {

/// A camera of this machine.
struct CameraDevice {
  /// As openCamera() takes it: /dev/video2 is 2.
  int number = 0;
  /// As the camera calls itself: "USB 2.0 Camera".
  std::string name;

  bool operator==(const CameraDevice&) const = default;
};

/// The cameras that the system knows, by number; a camera's other channels, which have no pictures, are left
/// out. Reads the names that Linux keeps of them (Video4Linux), opens nothing.
std::vector<CameraDevice> cameraDevices(const std::filesystem::path& folder = "/sys/class/video4linux");

}  // namespace chispa::link
