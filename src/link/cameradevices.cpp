// SPDX-License-Identifier: GPL-3.0-or-later
#include "link/cameradevices.h"

#include <algorithm>
#include <charconv>
#include <fstream>

namespace chispa::link {
namespace {

std::string lineOf(const std::filesystem::path& file) {
  std::ifstream in(file);
  std::string line;
  std::getline(in, line);
  return line;
}

}  // namespace

std::vector<CameraDevice> cameraDevices(const std::filesystem::path& folder) {
  constexpr std::string_view kPrefix = "video";
  std::vector<CameraDevice> found;
  std::error_code none;
  for (const auto& entry : std::filesystem::directory_iterator(folder, none)) {
    const std::string file = entry.path().filename().string();
    if (!file.starts_with(kPrefix)) continue;
    CameraDevice device;
    const char* end = file.data() + file.size();
    const auto read = std::from_chars(file.data() + kPrefix.size(), end, device.number);
    if (read.ec != std::errc() || read.ptr != end) continue;
    // The first of a camera's channels has its pictures.
    if (const std::string index = lineOf(entry.path() / "index"); !index.empty() && index != "0") continue;
    device.name = lineOf(entry.path() / "name");
    if (device.name.empty()) device.name = "/dev/" + file;
    found.push_back(std::move(device));
  }
  std::sort(found.begin(), found.end(),
            [](const CameraDevice& a, const CameraDevice& b) { return a.number < b.number; });
  return found;
}

}  // namespace chispa::link
