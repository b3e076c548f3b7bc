// SPDX-License-Identifier: GPL-3.0-or-later
#include "link/scenecamera.h"

#include <algorithm>
#include <chrono>
#include <map>
#include <thread>

#include <httplib.h>

namespace chispa::link {
namespace {

using Clock = std::chrono::steady_clock;

/// One node, and the LEDs of the scene that hang on it.
struct SeenNode {
  std::unique_ptr<httplib::Client> client;
  /// Number in the scene, by port and place.
  std::map<std::pair<int, int>, std::size_t> leds;
};

class SceneCamera final : public vision::FrameSource {
 public:
  SceneCamera(const std::vector<vision::SceneLed>& scene, const vision::View& view,
              const vision::ImageDefects& defects, unsigned seed)
      : camera_(placesOf(scene), view, defects, seed), light_(scene.size(), 0.f), due_(Clock::now()) {
    for (std::size_t i = 0; i < scene.size(); ++i) {
      SeenNode& node = nodes_[{scene[i].host, scene[i].httpPort}];
      if (!node.client) {
        node.client = std::make_unique<httplib::Client>(scene[i].host, scene[i].httpPort);
        node.client->set_keep_alive(true);
        node.client->set_connection_timeout(0, 300'000);
        node.client->set_read_timeout(0, 300'000);
      }
      node.leds[{scene[i].port, scene[i].pixel}] = i;
    }
  }

  std::optional<vision::Frame> next() override {
    std::this_thread::sleep_until(due_);
    due_ += std::chrono::nanoseconds(static_cast<std::int64_t>(1e9 / camera_.defects().framesPerSecond));
    due_ = std::max(due_, Clock::now());
    // The light is that of some instant while the nodes were asked.
    const double began_s = now_s();
    for (auto& [place, node] : nodes_) look(node);
    const double middle_s = (began_s + now_s()) / 2;
    return vision::Frame{camera_.take(light_, middle_s), middle_s + camera_.defects().lag_s};
  }
  bool isLive() const override { return true; }

 private:
  static double now_s() { return std::chrono::duration<double>(Clock::now().time_since_epoch()).count(); }

  static std::vector<Vec3> placesOf(const std::vector<vision::SceneLed>& scene) {
    std::vector<Vec3> places;
    for (const vision::SceneLed& led : scene) places.push_back(led.place_m);
    return places;
  }

  /// The answer is a port's number and count of LEDs, two bytes each, the coarse one first, and then red,
  /// green and blue of each; port after port.
  void look(SeenNode& node) {
    const auto answer = node.client->Get("/light");
    if (!answer || answer->status != 200) {
      for (const auto& [place, led] : node.leds) light_[led] = 0;
      return;
    }
    const std::string& body = answer->body;
    const auto byte = [&](std::size_t at) { return static_cast<int>(static_cast<unsigned char>(body[at])); };
    std::size_t at = 0;
    while (at + 4 <= body.size()) {
      const int port = byte(at) * 256 + byte(at + 1);
      const int count = byte(at + 2) * 256 + byte(at + 3);
      at += 4;
      for (int pixel = 1; pixel <= count && at + 3 <= body.size(); ++pixel, at += 3)
        if (const auto led = node.leds.find({port, pixel}); led != node.leds.end())
          light_[led->second] = static_cast<float>(byte(at) + byte(at + 1) + byte(at + 2)) / 765;
    }
  }

  vision::SimulatedCamera camera_;
  std::map<std::pair<std::string, int>, SeenNode> nodes_;
  std::vector<float> light_;
  Clock::time_point due_;
};

}  // namespace

std::unique_ptr<vision::FrameSource> openSceneCamera(const std::vector<vision::SceneLed>& scene,
                                                     const vision::View& view,
                                                     const vision::ImageDefects& defects, unsigned seed) {
  return std::make_unique<SceneCamera>(scene, view, defects, seed);
}

}  // namespace chispa::link
