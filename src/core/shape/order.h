// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <vector>

#include "core/base/vec3.h"

namespace chispa {

/// From point to the nearest that is left, beginning with `first`.
std::vector<int> nearestOrder(const std::vector<Vec3>& points, int first = 0);
/// The points that a stroke passes within `reach_m`, in its order, then all others from the nearest to the
/// nearest.
std::vector<int> orderThrough(const std::vector<Vec3>& points, const std::vector<Vec3>& stroke,
                              double reach_m);

}  // namespace chispa
