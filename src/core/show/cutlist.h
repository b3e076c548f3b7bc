// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <string>
#include <vector>

#include "core/show/show.h"

namespace chispa {

/// Pieces of strip that are alike.
struct CutPiece {
  StripTypeId stripType;
  int pixels = 0;
  double length_m = 0;
  int count = 0;
  /// The fixtures they are for, in the show's order.
  std::vector<std::string> fixtures;

  bool operator==(const CutPiece&) const = default;
};

/// What to cut from the reels: a piece a line, arc, path, spiral, ring or string, and one a strip of a grid.
/// Lengths are rounded to millimetres. By strip type in the show's order, the longest first; loose points and
/// single lamps need no strip.
std::vector<CutPiece> cutList(const Show& show);

}  // namespace chispa
