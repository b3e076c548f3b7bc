// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/plan/projection.h"

#include <algorithm>

namespace chispa::desk {

void PlanProjection::setSide(PlanSide side) {
  side_ = side;
  updateAxes();
}

void PlanProjection::orbit(double yaw_deg, double pitch_deg) {
  yaw_deg_ = std::remainder(yaw_deg_ + yaw_deg, 360.0);
  pitch_deg_ = std::clamp(pitch_deg_ + pitch_deg, 0.0, 90.0);
  updateAxes();
}

void PlanProjection::updateAxes() {
  switch (side_) {
    case PlanSide::Top:
    case PlanSide::Unrolled:
      right_ = {1, 0, 0}, up_ = {0, 1, 0};
      break;
    case PlanSide::Front:
      right_ = {1, 0, 0}, up_ = {0, 0, 1};
      break;
    case PlanSide::Side:
      right_ = {0, 1, 0}, up_ = {0, 0, 1};
      break;
    case PlanSide::Free: {
      const double yaw = radians(yaw_deg_);
      const double pitch = radians(pitch_deg_);
      right_ = {std::cos(yaw), std::sin(yaw), 0};
      const Vec3 away{-std::sin(yaw), std::cos(yaw), 0};
      up_ = away * std::sin(pitch) + Vec3{0, 0, std::cos(pitch)};
      break;
    }
  }
}

}  // namespace chispa::desk
