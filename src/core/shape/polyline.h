// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <string>
#include <utility>
#include <vector>

#include "core/shape/shape.h"

namespace chispa {

// The way that a strip takes, as a chain of straight legs fine enough for any eye.

/// A way with a name: a line of a drawing, or the edge of a letter.
struct Outline {
  std::string name;
  std::vector<Vec3> corners_m;
};

/// Length of the way through `corners`.
double polylineLength_m(const std::vector<Vec3>& corners);
/// `count` points evenly spread along the way through `corners`: the ith at (i + ½) / count of its length.
std::vector<Vec3> spreadAlong(const std::vector<Vec3>& corners, int count);
/// The way up to `at_m` metres, and the way from there.
std::pair<std::vector<Vec3>, std::vector<Vec3>> splitPolyline(const std::vector<Vec3>& corners, double at_m);

/// Corners as they are, or the centripetal Catmull-Rom curve through them (Barry and Goldman, 1988).
std::vector<Vec3> polylineOf(const PathShape& path);
std::vector<Vec3> polylineOf(const SpiralShape& spiral);
/// Where other pieces are joined to a shape: the ends of its strip, its corners, and the centre of what is
/// round.
std::vector<Vec3> jointsOf(const Shape& shape);
/// Radius of ring `i`, the innermost being 0.
double ringRadius_m(const RingsShape& rings, std::size_t i);

}  // namespace chispa
