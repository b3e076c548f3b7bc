// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <optional>
#include <span>

#include "core/base/vec3.h"
#include "core/vision/picture.h"

namespace chispa::vision {

/// How a camera maps the world into its pictures: a pinhole with one term of radial distortion (D. C. Brown,
/// 1971: k1, in units of the focal length).
struct Lens {
  int width = 1280;
  int height = 720;
  /// Of the whole width of the picture, without distortion.
  double fieldOfView_deg = 60;
  double k1 = 0;

  double focal_px() const;
};

/// A camera at a place, looking at a point; z of the world is up.
struct View {
  Lens lens;
  Vec3 eye;
  Vec3 at;

  /// Nothing for what is behind the camera. May be outside of the picture.
  std::optional<Spot> project(Vec3 point) const;
};

/// A view from a direction (0° azimuth looks along +y, counter-clockwise seen from above) that has all points
/// well within its picture.
View viewOfAll(std::span<const Vec3> points, const Lens& lens, double azimuth_deg, double elevation_deg);

}  // namespace chispa::vision
