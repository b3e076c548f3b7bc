// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/zone/frame.h"

#include <algorithm>
#include <limits>

#include <Eigen/Eigenvalues>

namespace chispa {
namespace {

Vec3 meanOf(std::span<const Vec3> points) {
  Vec3 sum;
  for (const Vec3& p : points) sum = sum + p;
  return points.empty() ? sum : sum * (1.0 / static_cast<double>(points.size()));
}

/// The direction that points of a plane do not extend in (principal axes of their scatter); up if they have
/// no plane.
Vec3 normalOf(std::span<const Vec3> points) {
  const Vec3 mean = meanOf(points);
  Eigen::Matrix3d scatter = Eigen::Matrix3d::Zero();
  for (const Vec3& p : points) {
    const Eigen::Vector3d away(p.x - mean.x, p.y - mean.y, p.z - mean.z);
    scatter += away * away.transpose();
  }
  const Eigen::SelfAdjointEigenSolver<Eigen::Matrix3d> axes(scatter);
  const auto& extent = axes.eigenvalues();
  constexpr double kFlat = 1e-4;
  const bool isPlane = extent[0] <= kFlat * extent[2] && extent[1] > kFlat * extent[2];
  if (!isPlane) return {0, 0, 1};
  const Eigen::Vector3d n = axes.eigenvectors().col(0);
  return {n[0], n[1], n[2]};
}

}  // namespace

double ZoneFrame::angle_deg(Vec3 point) const {
  const double angle = degrees(std::atan2(dot(point - centre_m, up), dot(point - centre_m, right)));
  return angle < 0 ? angle + 360 : angle;
}

ZoneFrame frameOf(std::span<const Vec3> points, std::optional<Vec3> centre_m) {
  Vec3 n = normalOf(points);
  ZoneFrame frame;
  constexpr double kLevel = 0.999;
  if (std::abs(n.z) < kLevel) {
    // Looked at from above, from the front (against y) or from the right, whichever the plane faces most.
    const bool facesAway = std::abs(n.z) >= std::max(std::abs(n.x), std::abs(n.y)) ? n.z < 0
                           : std::abs(n.y) >= std::abs(n.x)                        ? n.y > 0
                                                                                   : n.x < 0;
    if (facesAway) n = n * -1;
    frame.right = unit(cross({0, 0, 1}, n));
    frame.up = cross(n, frame.right);
  }
  double lowX = std::numeric_limits<double>::max(), lowY = lowX, highX = -lowX, highY = -lowX;
  for (const Vec3& p : points) {
    lowX = std::min(lowX, dot(p, frame.right));
    highX = std::max(highX, dot(p, frame.right));
    lowY = std::min(lowY, dot(p, frame.up));
    highY = std::max(highY, dot(p, frame.up));
  }
  if (centre_m)
    frame.centre_m = *centre_m;
  else if (!points.empty()) {
    const Vec3 normal = cross(frame.right, frame.up);
    frame.centre_m = frame.right * ((lowX + highX) / 2) + frame.up * ((lowY + highY) / 2) +
                     normal * dot(meanOf(points), normal);
  }
  return frame;
}

}  // namespace chispa
