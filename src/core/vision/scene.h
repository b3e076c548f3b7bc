// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <filesystem>
#include <string>
#include <vector>

#include "core/base/result.h"
#include "core/base/vec3.h"

namespace chispa::vision {

/// Where an LED of a simulated controller really is: what the simulated camera looks at.
struct SceneLed {
  /// Address of the node's set-up interface.
  std::string host;
  int httpPort = 0;
  /// Port and place on it, from 1.
  int port = 1;
  int pixel = 1;
  Vec3 place_m;
};

/// Reads a scene: a line of heads "host,http_port,port,pixel,x,y,z", then a line for each LED. Fails with the
/// line that is wrong.
Result<std::vector<SceneLed>> readScene(const std::filesystem::path& path);
std::string sceneText(const std::vector<SceneLed>& scene);

}  // namespace chispa::vision
