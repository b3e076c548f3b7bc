// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/vision/scene.h"

#include <fstream>
#include <sstream>

namespace chispa::vision {
namespace {

constexpr const char* kHead = "host,http_port,port,pixel,x,y,z";

bool readLed(const std::string& line, SceneLed& led) {
  std::istringstream in(line);
  std::string host;
  if (!std::getline(in, host, ',')) return false;
  led.host = host;
  char comma = ',';
  in >> led.httpPort >> comma >> led.port >> comma >> led.pixel >> comma >> led.place_m.x >> comma >>
      led.place_m.y >> comma >> led.place_m.z;
  return !in.fail() && led.port >= 1 && led.pixel >= 1;
}

}  // namespace

Result<std::vector<SceneLed>> readScene(const std::filesystem::path& path) {
  std::ifstream file(path);
  if (!file) return Failure{"the scene cannot be read", path.string(), "check its name"};
  std::vector<SceneLed> scene;
  std::string line;
  for (int number = 1; std::getline(file, line); ++number) {
    if (line.empty() || (number == 1 && line == kHead)) continue;
    SceneLed led;
    if (!readLed(line, led))
      return Failure{sentence("line %1 is no LED: %2", number, line), path.string(),
                     sentence("each line is %1", kHead)};
    scene.push_back(led);
  }
  return scene;
}

std::string sceneText(const std::vector<SceneLed>& scene) {
  std::ostringstream out;
  out.precision(9);
  out << kHead << '\n';
  for (const SceneLed& led : scene)
    out << led.host << ',' << led.httpPort << ',' << led.port << ',' << led.pixel << ',' << led.place_m.x
        << ',' << led.place_m.y << ',' << led.place_m.z << '\n';
  return out.str();
}

}  // namespace chispa::vision
