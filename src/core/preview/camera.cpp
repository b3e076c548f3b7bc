// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/preview/camera.h"

#include <algorithm>

namespace chispa {
namespace {

constexpr double kNearest_m = 0.05;

Vec3 direction(double yaw_deg, double pitch_deg) {
  const double yaw = radians(yaw_deg);
  const double pitch = radians(pitch_deg);
  return {std::sin(yaw) * std::cos(pitch), std::cos(yaw) * std::cos(pitch), -std::sin(pitch)};
}

Vec3 cross(Vec3 a, Vec3 b) { return {a.y * b.z - a.z * b.y, a.z * b.x - a.x * b.z, a.x * b.y - a.y * b.x}; }

}  // namespace

Projection::Projection(const OrbitCamera& camera, int width, int height)
    : forward_(direction(camera.yaw_deg, std::clamp(camera.pitch_deg, -89.0, 89.0))),
      focal_(height / 2.0 / std::tan(radians(camera.view_deg) / 2)),
      centreX_(width / 2.0),
      centreY_(height / 2.0) {
  eye_ = camera.target - forward_ * camera.distance_m;
  right_ = cross(forward_, {0, 0, 1});
  right_ = right_ * (1 / length(right_));
  up_ = cross(right_, forward_);
}

std::optional<Projection::Spot> Projection::spotOf(Vec3 point) const {
  const Vec3 seen = point - eye_;
  const double depth = dot(seen, forward_);
  if (depth < kNearest_m) return std::nullopt;
  const double scale = focal_ / depth;
  return Spot{static_cast<float>(centreX_ + dot(seen, right_) * scale),
              static_cast<float>(centreY_ - dot(seen, up_) * scale), static_cast<float>(scale)};
}

OrbitCamera framing(const std::vector<Vec3>& points, double aspect) {
  OrbitCamera camera;
  if (points.empty()) return camera;
  Vec3 low = points.front();
  Vec3 high = low;
  for (const Vec3& p : points) {
    low = {std::min(low.x, p.x), std::min(low.y, p.y), std::min(low.z, p.z)};
    high = {std::max(high.x, p.x), std::max(high.y, p.y), std::max(high.z, p.z)};
  }
  camera.target = (low + high) * 0.5;
  const Vec3 size = high - low;
  // Back off until the widest and the tallest extent both fit, with a margin.
  constexpr double kMargin = 1.12;
  const double half = std::tan(radians(camera.view_deg) / 2);
  const double tall = size.z + size.y * std::sin(radians(camera.pitch_deg));
  const double fits = std::max(tall / 2, size.x / 2 / std::max(0.1, aspect)) / half;
  camera.distance_m = std::max(0.5, kMargin * fits + size.y / 2);
  return camera;
}

}  // namespace chispa
