// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <optional>
#include <span>
#include <vector>

#include "core/base/result.h"
#include "core/base/vec3.h"
#include "core/vision/view.h"

namespace chispa::vision {

/// A length that was measured, between two LEDs.
struct KnownLength {
  int fromLed = 0;
  int toLed = 0;
  double length_m = 1;
};

/// Places in space, seen from the first camera: x right, y away from it, z up, in metres.
struct SpacePoints {
  /// By LED; nothing for those that were not seen from both places.
  std::vector<std::optional<Vec3>> points;
  /// How far each LED's light is from where its point should be seen, in picture pixels, the mean of both
  /// pictures.
  std::vector<double> residual_px;
  double medianResidual_px = 0;
  /// Radial distortion that fits best.
  double k1 = 0;
};

/// Metres of a picture pixel in a plane that faces the camera; nothing if the LEDs of the known length were
/// not found, or are at one place.
std::optional<double> metresPerPixel(std::span<const std::optional<Spot>> spots, const KnownLength& known);

/// Places of LEDs in space from where they are seen in pictures of one camera at two places, of which nothing
/// else is known: the pose from the five-point method (D. Nistér, 2004) with RANSAC, refined together with
/// the lens's distortion on the Sampson distance (Hartley and Zisserman, Multiple View Geometry, 11.4.3), and
/// triangulation (12.2). Fails with the reason if fewer than twelve LEDs were seen twice, or both pictures
/// are from one place.
Result<SpacePoints> placesInSpace(std::span<const std::optional<Spot>> first,
                                  std::span<const std::optional<Spot>> second, const Lens& lens,
                                  const KnownLength& known);

}  // namespace chispa::vision
