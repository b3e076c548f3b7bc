// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <memory>
#include <vector>

#include "core/vision/scene.h"
#include "core/vision/simulatedcamera.h"
#include "core/vision/source.h"

namespace chispa::link {

/// A simulated camera that looks at the real pixels of simulated controllers: asks each node what its LEDs
/// show (GET /light, docs/node-interface.md) and draws that as its lens would see it, at its own rate. A node
/// that does not answer is dark.
std::unique_ptr<vision::FrameSource> openSceneCamera(const std::vector<vision::SceneLed>& scene,
                                                     const vision::View& view,
                                                     const vision::ImageDefects& defects, unsigned seed);

}  // namespace chispa::link
