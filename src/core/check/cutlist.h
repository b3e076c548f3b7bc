// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <optional>
#include <string>
#include <vector>

#include "core/show/show.h"

namespace chispa {

/// Pieces of strip that are alike.
struct CutPiece {
  StripTypeId stripType;
  int pixels = 0;
  /// The length that it lies along.
  double length_m = 0;
  /// What is cut off the reel for it, to whole cuts; 0 for strings and panels, which have none.
  double reel_m = 0;
  int count = 0;
  /// The fixtures they are for, in the show's order.
  std::vector<std::string> fixtures;

  bool operator==(const CutPiece&) const = default;
};

/// A piece whose LEDs do not stand as its reel has them.
struct OffReel {
  int pixels = 0;
  double length_m = 0;
  /// Length of that many pixels as the reel has them.
  double reel_m = 0;
  /// Pixels of the reel on that length, to a whole cut.
  int fits = 0;

  bool operator==(const OffReel&) const = default;
};

/// The first piece of a fixture whose pixels are more than 2 % nearer or farther than its strip type has
/// them; nothing for those that agree, and for strings and panels, which have no reel.
std::optional<OffReel> offReel(const Show& show, const Fixture& fixture);

/// True if it lies along as much as is cut for it.
bool agreesWithReel(const CutPiece& piece);

/// What to cut from the reels: a piece a line, arc, path, spiral, ring or string, and one a strip of a grid.
/// Lengths are rounded to millimetres. By strip type in the show's order, the longest first; loose points and
/// single lamps need no strip.
std::vector<CutPiece> cutList(const Show& show);

}  // namespace chispa
