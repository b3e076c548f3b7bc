// SPDX-License-Identifier: GPL-3.0-or-later
#include "link/cameradevices.h"

#include <fstream>

#include "temporary.h"
#include <gtest/gtest.h>

#include "link/camera.h"

namespace chispa::link {
namespace {

/// What Linux says of two cameras, one of which has a second channel, and of what is none.
TEST(CameraDevices, AreListedByTheirNames) {
  const test::TemporaryFolder folder;
  const auto add = [&](const std::string& file, const std::string& name, const std::string& index) {
    std::filesystem::create_directories(folder.path() / file);
    if (!name.empty()) std::ofstream(folder.path() / file / "name") << name << "\n";
    if (!index.empty()) std::ofstream(folder.path() / file / "index") << index << "\n";
  };
  add("video10", "Ceiling", "0");
  add("video0", "Webcam: small", "0");
  add("video1", "Webcam: small", "1");
  add("video2", "", "");
  add("videoX", "None", "0");
  add("v4l-subdev0", "Sensor", "0");
  EXPECT_EQ(cameraDevices(folder.path()),
            (std::vector<CameraDevice>{{0, "Webcam: small"}, {2, "/dev/video2"}, {10, "Ceiling"}}));
  EXPECT_TRUE(cameraDevices(folder.path() / "nowhere").empty());
}

/// The module that reads cameras is there, and is asked.
TEST(CameraDevices, ThatAreNotThereAreNotOpened) {
  const auto camera = openCamera(63);
  ASSERT_FALSE(camera);
  EXPECT_EQ(camera.failure().what.text(), "camera 63 cannot be opened");
}

}  // namespace
}  // namespace chispa::link
