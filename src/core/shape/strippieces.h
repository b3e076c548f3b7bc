// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <vector>

#include "core/shape/shape.h"

namespace chispa {

/// One uncut length of strip.
struct StripPiece {
  int pixels;
  double length_m;
};

/// What a shape is laid with: a piece a line, arc, path, spiral, ring or string, and one a strip of a grid;
/// none for loose points and single lamps.
std::vector<StripPiece> stripPiecesOf(const Shape& shape);

}  // namespace chispa
