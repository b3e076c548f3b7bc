// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <optional>
#include <span>
#include <vector>

#include "core/base/vec3.h"

namespace chispa::vision {

/// Places that were found, turned, moved and, if `scales`, scaled so that they lie as near as can be to where
/// the plan has them (S. Umeyama, 1991). What was not found stays so. Fewer than three leave them as they
/// are.
std::vector<std::optional<Vec3>> laidOnto(std::span<const std::optional<Vec3>> found,
                                          std::span<const Vec3> plan, bool scales);

/// The median distance between what was found and the plan, in metres.
double medianDistance(std::span<const std::optional<Vec3>> found, std::span<const Vec3> plan);

/// Every place: those that are missing lie evenly between their neighbours on the strip, or go on as it ends.
std::vector<Vec3> filledIn(std::span<const std::optional<Vec3>> found);

}  // namespace chispa::vision
