// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/preview/camera.h"

#include <algorithm>

#include "core/base/multiversion.h"

namespace chispa {
namespace {

constexpr double kNearest_m = 0.05;

Vec3 direction(double yaw_deg, double pitch_deg) {
  const double yaw = radians(yaw_deg);
  const double pitch = radians(pitch_deg);
  return {std::sin(yaw) * std::cos(pitch), std::cos(yaw) * std::cos(pitch), -std::sin(pitch)};
}

}  // namespace

Extent extentOf(const std::vector<Vec3>& points) {
  if (points.empty()) return {};
  Extent extent{points.front(), points.front()};
  for (const Vec3& p : points) {
    extent.low = {std::min(extent.low.x, p.x), std::min(extent.low.y, p.y), std::min(extent.low.z, p.z)};
    extent.high = {std::max(extent.high.x, p.x), std::max(extent.high.y, p.y), std::max(extent.high.z, p.z)};
  }
  return extent;
}

Projection::Projection(const OrbitCamera& camera, int width, int height)
    : forward_(direction(camera.yaw_deg, std::clamp(camera.pitch_deg, -89.0, 89.0))),
      focal_(height / 2.0 / std::tan(radians(camera.view_deg) / 2)),
      centreX_(width / 2.0),
      centreY_(height / 2.0) {
  eye_ = camera.target - forward_ * camera.distance_m;
  right_ = unit(cross(forward_, {0, 0, 1}));
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

Vec3 Projection::wayThrough(double x, double y) const {
  return forward_ * focal_ + right_ * (x - centreX_) + up_ * (centreY_ - y);
}

std::optional<Vec3> Projection::onFloor(double x, double y, double height_m) const {
  const Vec3 way = wayThrough(x, y);
  const double below = eye_.z - height_m;
  if (below <= 0 || way.z >= -kLevel * focal_) return std::nullopt;
  return eye_ + way * (below / -way.z);
}

std::optional<Vec3> Projection::onWall(double x, double y, double depth_m) const {
  const Vec3 way = wayThrough(x, y);
  const double before = depth_m - eye_.y;
  if (before <= 0 || way.y <= kLevel * focal_) return std::nullopt;
  return eye_ + way * (before / way.y);
}

CHISPA_MULTIVERSION void Projection::spotsOf(std::span<const Vec3> points, float* __restrict x,
                                             float* __restrict y, float* __restrict scale) const noexcept {
  const auto centreX = static_cast<float>(centreX_);
  const auto centreY = static_cast<float>(centreY_);
  const Vec3 eye = eye_, right = right_, up = up_, forward = forward_;
  const auto focal = static_cast<float>(focal_);
  for (std::size_t i = 0; i < points.size(); ++i) {
    // Near the viewer, single precision is fine enough for a picture.
    const auto dx = static_cast<float>(points[i].x - eye.x);
    const auto dy = static_cast<float>(points[i].y - eye.y);
    const auto dz = static_cast<float>(points[i].z - eye.z);
    const auto along = [&](const Vec3& way) {
      return dx * static_cast<float>(way.x) + dy * static_cast<float>(way.y) + dz * static_cast<float>(way.z);
    };
    const float depth = along(forward);
    const float size = depth < static_cast<float>(kNearest_m) ? 0.f : focal / depth;
    scale[i] = size;
    x[i] = centreX + along(right) * size;
    y[i] = centreY - along(up) * size;
  }
}

namespace {

/// Flat pieces are seen from where they can be read: upright ones from their front, those on the floor from
/// above.
double pitchFor(Vec3 size) {
  constexpr double kFlat = 0.02;
  constexpr double kFromAbove_deg = 65;
  const double most = std::max({size.x, size.y, size.z});
  if (size.y <= kFlat * most && size.z > kFlat * most) return 0;
  if (size.z <= kFlat * most && size.y > kFlat * most) return kFromAbove_deg;
  return OrbitCamera{}.pitch_deg;
}

}  // namespace

OrbitCamera framing(const std::vector<Vec3>& points, double aspect) {
  OrbitCamera camera;
  if (points.empty()) return camera;
  constexpr int kHeight = 1000;
  constexpr double kMargin = 1.1;
  const int width = std::max(100, static_cast<int>(kHeight * aspect));
  const Extent world = extentOf(points);
  camera.pitch_deg = pitchFor(world.high - world.low);
  camera.target = (world.low + world.high) * 0.5;
  camera.distance_m = std::max(0.5, length(world.high - world.low) * 1.5);
  // Each round looks where the points fall, centres them and comes as near as the wider side lets it.
  constexpr int kRounds = 6;
  for (int round = 0; round < kRounds; ++round) {
    const Projection projection(camera, width, kHeight);
    float left = 1e9f, right = -1e9f, top = 1e9f, bottom = -1e9f;
    for (const Vec3& point : points) {
      const auto spot = projection.spotOf(point);
      if (!spot) continue;
      left = std::min(left, spot->x);
      right = std::max(right, spot->x);
      top = std::min(top, spot->y);
      bottom = std::max(bottom, spot->y);
    }
    const double perMetre = kHeight / 2.0 / std::tan(radians(camera.view_deg) / 2) / camera.distance_m;
    camera.target.x += (static_cast<double>(left + right) / 2 - width / 2.0) / perMetre;
    camera.target.z -= (static_cast<double>(top + bottom) / 2 - kHeight / 2.0) / perMetre;
    const double fill =
        std::max(static_cast<double>(right - left) / width, static_cast<double>(bottom - top) / kHeight);
    camera.distance_m = std::max(0.3, camera.distance_m * std::max(0.3, fill * kMargin));
  }
  return camera;
}

}  // namespace chispa
