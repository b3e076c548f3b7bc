// SPDX-License-Identifier: GPL-3.0-or-later
#include "nodecamera/framewriter.h"

#include <chrono>
#include <cstdio>
#include <fstream>
#include <map>

#include "core/vision/source.h"

namespace chispa::node {
namespace {

std::vector<Vec3> placesOf(const std::vector<vision::SceneLed>& scene) {
  std::vector<Vec3> places;
  for (const vision::SceneLed& led : scene) places.push_back(led.place_m);
  return places;
}

}  // namespace

Result<std::unique_ptr<FrameWriter>> FrameWriter::begin(const Node& node, Filming filming) {
  std::error_code error;
  std::filesystem::create_directories(filming.folder, error);
  if (error)
    return Failure{sentence("the folder for the pictures cannot be made: %1", error.message()),
                   filming.folder.string(), "choose another"};
  return std::unique_ptr<FrameWriter>(new FrameWriter(node, std::move(filming)));
}

FrameWriter::FrameWriter(const Node& node, Filming filming)
    : node_(node),
      filming_(std::move(filming)),
      camera_(placesOf(filming_.scene),
              vision::viewOfAll(placesOf(filming_.scene), {}, filming_.azimuth_deg, filming_.elevation_deg),
              vision::defectsOf(filming_.severity), 20'261'123),
      thread_([this] { run(); }) {}

FrameWriter::~FrameWriter() {
  stopping_.store(true);
  thread_.join();
}

void FrameWriter::run() {
  using Clock = std::chrono::steady_clock;
  const auto begun = Clock::now();
  const auto period =
      std::chrono::nanoseconds(static_cast<std::int64_t>(1e9 / camera_.defects().framesPerSecond));
  std::ofstream times(filming_.folder / "times.csv");
  std::vector<float> light(filming_.scene.size());
  for (auto next = begun; !stopping_.load(); next = std::max(next + period, Clock::now())) {
    std::this_thread::sleep_until(next);
    std::map<int, std::vector<Shown>> shown;
    for (const PortSetup& port : node_.settings()) shown[port.port] = node_.shown(port);
    for (std::size_t i = 0; i < light.size(); ++i) {
      const vision::SceneLed& led = filming_.scene[i];
      const auto port = shown.find(led.port);
      const bool isThere = port != shown.end() && led.pixel <= static_cast<int>(port->second.size());
      const Shown colour = isThere ? port->second[static_cast<std::size_t>(led.pixel - 1)] : Shown{};
      light[i] = static_cast<float>(colour.r + colour.g + colour.b) / 765;
    }
    const double now = std::chrono::duration<double>(Clock::now() - begun).count();
    char name[32];
    std::snprintf(name, sizeof name, "%06d.png", frames_.load());
    if (!vision::writePicture(camera_.take(light, now), filming_.folder / name)) return;
    times << name << ',' << now + camera_.defects().lag_s << '\n' << std::flush;
    frames_.fetch_add(1);
  }
}

}  // namespace chispa::node
