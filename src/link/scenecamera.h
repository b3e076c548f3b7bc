// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <memory>
#include <vector>

#include "core/eye/scene.h"
#include "core/eye/simulatedcamera.h"
#include "core/eye/source.h"

namespace chispa::link {

/// A simulated camera that looks at the real pixels of simulated controllers: asks each node what its LEDs
/// show (GET /light, docs/node-interface.md) and draws that as its lens would see it, at its own rate. A node
/// that does not answer is dark.
std::unique_ptr<eye::FrameSource> openSceneCamera(const std::vector<eye::SceneLed>& scene,
                                                  const eye::View& view, const eye::Spoils& spoils,
                                                  unsigned seed);

}  // namespace chispa::link
