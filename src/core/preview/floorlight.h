// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <array>
#include <vector>

#include "core/preview/boxblur.h"
#include "core/render/frame.h"
#include "core/zone/pixelmap.h"

namespace chispa {

/// The light that falls on the floor under an installation: wider and fainter the higher a lamp hangs. Keeps
/// its buffers from picture to picture. One thread at a time.
class FloorLight {
 public:
  /// Takes in the light of `frame` on the pixels of `map`. False if there is none, or the frame is of another
  /// size: then the floor is as it was.
  bool gather(const PixelMap& map, const PixelFrame& frame);
  /// Height of the floor: that of the lowest pixel.
  double height_m() const { return low_.z; }
  /// Light that comes from the floor there; fades out some metres beside the installation.
  Light4 at(double x, double y) const;

 private:
  static constexpr int kSide = 64;
  /// Lamps are spread in so many ways, by how high they hang.
  static constexpr int kHeights = 3;

  Vec3 low_;
  double width_m_ = 1;
  double depth_m_ = 1;
  std::array<std::vector<Light4>, kHeights> grids_;
  BlurScratch blurring_;
  std::vector<Light4> floor_;
};

}  // namespace chispa
