// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QPointF>

#include "core/base/vec3.h"

namespace chispa::desk {

/// From where the plan is looked at. Unrolled shows the cells of one zone or matrix as a grid in place of the
/// room.
enum class PlanSide { Top, Front, Side, Free, Unrolled };

/// How the room lies on the plan: parallel, without perspective, so that lengths across the view are true.
class PlanProjection {
 public:
  PlanSide side() const { return side_; }
  void setSide(PlanSide side);
  /// Turns the free view; the pitch stays between straight down and level.
  void orbit(double yaw_deg, double pitch_deg);

  /// The point of the plan, in metres, at which a point of the room is seen.
  QPointF flat(Vec3 world) const { return {dot(world, right_), dot(world, up_)}; }
  /// The point of the room through the origin's plane that is seen there.
  Vec3 lifted(QPointF plan) const { return right_ * plan.x() + up_ * plan.y(); }
  /// Directions of the room: to the right, upward, and toward the eye.
  Vec3 right() const { return right_; }
  Vec3 up() const { return up_; }
  Vec3 toEye() const { return cross(right_, up_); }

  bool operator==(const PlanProjection&) const = default;

 private:
  void updateAxes();

  PlanSide side_ = PlanSide::Top;
  double yaw_deg_ = -30;
  double pitch_deg_ = 35;
  Vec3 right_{1, 0, 0};
  Vec3 up_{0, 1, 0};
};

}  // namespace chispa::desk
