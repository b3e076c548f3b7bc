// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <vector>

#include "core/eye/scene.h"
#include "core/show/show.h"

namespace chispa::desk {

/// What the simulated camera sees if everything is where the plan says: each LED of the controllers that have
/// a set-up port.
std::vector<eye::SceneLed> sceneOf(const Show& show);

}  // namespace chispa::desk
