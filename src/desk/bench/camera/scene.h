// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <vector>

#include "core/show/show.h"
#include "core/vision/scene.h"

namespace chispa::desk {

/// What the simulated camera sees if everything is where the plan says: each LED of the controllers that have
/// a set-up port.
std::vector<vision::SceneLed> sceneOf(const Show& show);

}  // namespace chispa::desk
