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

/// Three axes at right angles to one another, as seen in the frame around.
struct Axes {
  Vec3 x{1, 0, 0};
  Vec3 y{0, 1, 0};
  Vec3 z{0, 0, 1};
};
/// The axes of a placed thing.
Axes axesOf(const Placement& placement);
/// Places many points of one thing, at the cost of one turn.
class Placer {
 public:
  explicit Placer(const Placement& placement) : origin_(placement.position_m), axes_(axesOf(placement)) {}
  Vec3 operator()(Vec3 local) const {
    return origin_ + axes_.x * local.x + axes_.y * local.y + axes_.z * local.z;
  }

 private:
  Vec3 origin_;
  Axes axes_;
};

/// The placement at `position_m` whose axes (a right-handed set) are `axes`.
Placement placementOf(Vec3 position_m, const Axes& axes);

/// `inner`, which stands in a thing placed by `outer`, in the frame around that.
Placement composed(const Placement& outer, const Placement& inner);
/// `world` as it stands in the frame of a thing placed by `outer`: composed(outer, result) is `world` again.
Placement relativeTo(const Placement& outer, const Placement& world);

}  // namespace chispa
