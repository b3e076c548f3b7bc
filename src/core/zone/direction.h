// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <cmath>

#include "core/base/vec3.h"

namespace chispa {

/// The direction, 1 long, that looks `turn_deg` counter-clockwise from x and `tilt_deg` up.
inline Vec3 directionOf(double turn_deg, double tilt_deg) noexcept {
  const double level = std::cos(radians(tilt_deg));
  return {level * std::cos(radians(turn_deg)), level * std::sin(radians(turn_deg)),
          std::sin(radians(tilt_deg))};
}

}  // namespace chispa
