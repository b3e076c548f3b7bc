// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/bench/camera/scene.h"

#include "core/zone/pixelmap.h"
#include "engine/program.h"

namespace chispa::desk {

std::vector<vision::SceneLed> sceneOf(const Show& show) {
  const PixelMap map = mapPixels(show);
  std::vector<vision::SceneLed> scene;
  for (const auto& controller : show.controllers) {
    if (controller->setupPort == 0) continue;
    for (int p = 0; p < std::ssize(controller->ports); ++p) {
      const auto chain = engine::chainOf(show, map.ranges, *controller, p).pixels;
      for (std::size_t i = 0; i < chain.size(); ++i)
        if (chain[i] != engine::PortChain::kSkipped)
          scene.push_back({controller->host, controller->setupPort, p + 1, static_cast<int>(i) + 1,
                           map.positions[static_cast<std::size_t>(chain[i])]});
    }
  }
  return scene;
}

}  // namespace chispa::desk
