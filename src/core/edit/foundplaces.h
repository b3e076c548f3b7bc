// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <vector>

#include "core/show/show.h"

namespace chispa {

/// A pixel of a fixture, and where it really is in the world, in metres.
struct FoundPlace {
  FixtureId fixture;
  int pixel = 0;
  Vec3 place_m;
};

/// Gives pixels the places at which they were found: the segments that have some of them become points. Their
/// order, their count, their names and all that refers to them stay.
void setPlaces(Show& show, const std::vector<FoundPlace>& places);

}  // namespace chispa
