// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/base/vec3.h"

namespace chispa {

/// Where a thing stands and how it is turned: first turned about x, then y, then z, then moved.
struct Placement {
  Vec3 position_m;
  Vec3 rotation_deg;

  bool operator==(const Placement&) const = default;
};

/// `local` of the placed thing's own frame, in the frame around it.
Vec3 placed(const Placement& placement, Vec3 local);

}  // namespace chispa
