// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <cmath>
#include <optional>
#include <span>

#include "core/base/vec3.h"

namespace chispa {

/// The plane in which a zone has angles and radii.
struct ZoneFrame {
  Vec3 centre_m;
  /// Where 0° points, and where 90° does.
  Vec3 right{1, 0, 0};
  Vec3 up{0, 1, 0};

  double radius_m(Vec3 point) const {
    const double x = dot(point - centre_m, right), y = dot(point - centre_m, up);
    return std::sqrt(x * x + y * y);
  }
  /// 0 up to 360, counter-clockwise.
  double angle_deg(Vec3 point) const;
};

/// The frame of things at `points`: the plane they lie in, seen from above, the front or the right; from
/// above if they lie in none. The centre is the middle of their extent unless `centre_m` is given.
ZoneFrame frameOf(std::span<const Vec3> points, std::optional<Vec3> centre_m = {});

}  // namespace chispa
