// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <optional>
#include <span>
#include <vector>

#include "core/base/vec3.h"

namespace chispa {

/// A viewer that circles a point and looks at it.
struct OrbitCamera {
  Vec3 target;
  /// Around the vertical axis; 0 looks along +y.
  double yaw_deg = 0;
  /// Above the horizon.
  double pitch_deg = 18;
  double distance_m = 10;
  /// Vertical angle of view.
  double view_deg = 40;

  bool operator==(const OrbitCamera&) const = default;
};

/// The corners of the box about some points; both 0 where there are none.
struct Extent {
  Vec3 low;
  Vec3 high;
};
Extent extentOf(const std::vector<Vec3>& points);

/// A camera made ready for an image of a size in pixels.
class Projection {
 public:
  Projection(const OrbitCamera& camera, int width, int height);

  struct Spot {
    float x = 0;
    float y = 0;
    /// Image pixels a metre at that depth.
    float scale = 1;
  };
  /// Where `point` falls, x to the right and y down; nothing if it lies behind the viewer.
  std::optional<Spot> spotOf(Vec3 point) const;
  /// The same for all of `points` at once, each array with room for them; a scale of 0 is behind the viewer.
  void spotsOf(std::span<const Vec3> points, float* x, float* y, float* scale) const noexcept;

  /// The place on a level floor of that height that is seen at a point of the image; nothing where that is
  /// above the horizon.
  std::optional<Vec3> onFloor(double x, double y, double height_m) const;
  /// The same of an upright wall at that depth, seen from in front of it.
  std::optional<Vec3> onWall(double x, double y, double depth_m) const;

 private:
  /// Less than this, of the focal length, a line of sight is level.
  static constexpr double kLevel = 1e-6;
  /// The line of sight through a point of the image.
  Vec3 wayThrough(double x, double y) const;

  Vec3 eye_;
  Vec3 right_;
  Vec3 up_;
  Vec3 forward_;
  double focal_;
  double centreX_;
  double centreY_;
};

/// A camera from the front, a little above, that has all of `points` in view.
OrbitCamera framing(const std::vector<Vec3>& points, double aspect);

}  // namespace chispa
