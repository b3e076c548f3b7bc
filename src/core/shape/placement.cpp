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

namespace {

Vec3 turned(const Placement& placement, Vec3 direction) {
  return placed({{}, placement.rotation_deg}, direction);
}

Vec3 inAxes(const Axes& axes, Vec3 v) {
  return {dot(axes.x, v), dot(axes.y, v), dot(axes.z, v)};
}

}  // namespace

Axes axesOf(const Placement& placement) {
  return {turned(placement, {1, 0, 0}), turned(placement, {0, 1, 0}), turned(placement, {0, 0, 1})};
}

Placement placementOf(Vec3 position_m, const Axes& axes) {
  // The rotation matrix is Rz Ry Rx; its columns are the axes.
  const double sinY = -axes.x.z;
  const double cosY = std::hypot(axes.x.x, axes.x.y);
  // Pointing straight up or down, turns about x and z are the same: all of it is given to z.
  const bool isLocked = cosY < 1e-9;
  const double x = isLocked ? 0 : std::atan2(axes.y.z, axes.z.z);
  const double z = isLocked ? std::atan2(-axes.y.x, axes.y.y) : std::atan2(axes.x.y, axes.x.x);
  return {position_m, {degrees(x), degrees(std::atan2(sinY, cosY)), degrees(z)}};
}

Placement composed(const Placement& outer, const Placement& inner) {
  const Axes axes = axesOf(inner);
  return placementOf(placed(outer, inner.position_m),
                     {turned(outer, axes.x), turned(outer, axes.y), turned(outer, axes.z)});
}

Placement relativeTo(const Placement& outer, const Placement& world) {
  const Axes frame = axesOf(outer);
  const Axes axes = axesOf(world);
  return placementOf(inAxes(frame, world.position_m - outer.position_m),
                     {inAxes(frame, axes.x), inAxes(frame, axes.y), inAxes(frame, axes.z)});
}

}  // namespace chispa
