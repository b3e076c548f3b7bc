// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/vision/view.h"

#include <algorithm>
#include <cmath>

namespace chispa::vision {
double Lens::focal_px() const {
  return width / 2.0 / std::tan(radians(fieldOfView_deg) / 2);
}

std::optional<Spot> View::project(Vec3 point) const {
  const Vec3 forward = unit(at - eye);
  const Vec3 up = std::abs(forward.z) > 0.999 ? Vec3{0, 1, 0} : Vec3{0, 0, 1};
  const Vec3 right = unit(cross(forward, up));
  const Vec3 down = cross(forward, right);
  const Vec3 off = point - eye;
  const double depth = dot(off, forward);
  if (depth < 1e-6) return std::nullopt;
  const double x = dot(off, right) / depth;
  const double y = dot(off, down) / depth;
  const double bend = 1 + lens.k1 * (x * x + y * y);
  const double focal = lens.focal_px();
  return Spot{x * bend * focal + (lens.width - 1) / 2.0, y * bend * focal + (lens.height - 1) / 2.0};
}

View viewOfAll(std::span<const Vec3> points, const Lens& lens, double azimuth_deg, double elevation_deg) {
  Vec3 low{1e18, 1e18, 1e18}, high{-1e18, -1e18, -1e18};
  for (const Vec3& p : points) {
    low = {std::min(low.x, p.x), std::min(low.y, p.y), std::min(low.z, p.z)};
    high = {std::max(high.x, p.x), std::max(high.y, p.y), std::max(high.z, p.z)};
  }
  const Vec3 centre = points.empty() ? Vec3{} : (low + high) * 0.5;
  const double size = points.empty() ? 1 : std::max(0.1, length(high - low));
  const double a = radians(azimuth_deg), e = radians(elevation_deg);
  const Vec3 back{std::sin(a) * std::cos(e), -std::cos(a) * std::cos(e), std::sin(e)};
  View view{lens, {}, centre};
  constexpr double kMargin = 0.06;
  for (double distance = size * 0.4; distance < size * 40; distance *= 1.04) {
    view.eye = centre + back * distance;
    const bool fits = std::all_of(points.begin(), points.end(), [&](const Vec3& p) {
      const auto spot = view.project(p);
      return spot && spot->x > lens.width * kMargin && spot->x < lens.width * (1 - kMargin) &&
             spot->y > lens.height * kMargin && spot->y < lens.height * (1 - kMargin);
    });
    if (fits) break;
  }
  return view;
}

}  // namespace chispa::vision
