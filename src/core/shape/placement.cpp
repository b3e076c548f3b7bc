// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/shape/placement.h"

namespace chispa {
namespace {

struct Turned {
  double first;
  double second;
};

Turned turn(double first, double second, double degrees) {
  const double c = std::cos(radians(degrees));
  const double s = std::sin(radians(degrees));
  return {c * first - s * second, s * first + c * second};
}

}  // namespace

Vec3 placed(const Placement& placement, Vec3 p) {
  const auto [y1, z1] = turn(p.y, p.z, placement.rotation_deg.x);
  const auto [z2, x2] = turn(z1, p.x, placement.rotation_deg.y);
  const auto [x3, y3] = turn(x2, y1, placement.rotation_deg.z);
  return Vec3{x3, y3, z2} + placement.position_m;
}

}  // namespace chispa
