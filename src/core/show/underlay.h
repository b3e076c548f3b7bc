// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <string>

#include "core/base/id.h"
#include "core/base/vec3.h"

namespace chispa {

/// Which face of the room a picture lies against.
enum class UnderlayFace { Floor, Front, Side };

/// A photo or drawing that lies beneath the plan while the maker draws over it.
struct Underlay {
  UnderlayId id;
  std::string name;
  /// Path of the picture, relative to the show's folder if it lies within.
  std::string file;
  UnderlayFace face = UnderlayFace::Floor;
  /// Where its middle lies.
  Vec3 position_m;
  /// Width of one of its pixels, in metres.
  double scale_m = 0.005;
  double turn_deg = 0;
  double opacity = 0.5;
  bool isVisible = true;

  bool operator==(const Underlay&) const = default;
};

}  // namespace chispa
