// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <array>
#include <vector>

#include "core/base/frame.h"
#include "core/preview/boxblur.h"
#include "core/zone/pixelmap.h"

namespace chispa {

/// The light that falls on the floor under an installation, or on a wall behind it: wider and fainter the
/// farther off a lamp hangs. Keeps its buffers from picture to picture. One thread at a time.
class SurfaceLight {
 public:
  enum class Surface {
    Floor,  ///< level, at the height of the lowest pixel
    Wall,   ///< upright, a little behind the pixel that is farthest back
  };

  explicit SurfaceLight(Surface surface) : isWall_(surface == Surface::Wall) {}

  /// Takes in the light of `frame` on the pixels of `map`. False if there is none, or the frame is of another
  /// size: then the surface is as it was.
  bool gather(const PixelMap& map, const PixelFrame& frame);
  /// Height of the floor, or how far back the wall is.
  double level_m() const { return level_m_; }
  /// Light that comes from a point of the surface; fades out some metres beside the installation.
  Light4 at(const Vec3& point) const;

 private:
  static constexpr int kSide = 64;
  /// Lamps are spread in so many ways, by how high they hang.
  static constexpr int kHeights = 3;

  /// What counts upwards on the surface: the height on a wall, the depth on the floor.
  double across(const Vec3& point) const { return isWall_ ? point.z : point.y; }

  bool isWall_;
  double level_m_ = 0;
  double lowX_ = 0;
  double lowY_ = 0;
  double width_m_ = 1;
  double depth_m_ = 1;
  std::array<std::vector<Light4>, kHeights> grids_;
  BlurScratch blurring_;
  std::vector<Light4> surface_;
};

}  // namespace chispa
