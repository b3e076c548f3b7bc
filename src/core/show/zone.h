// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <optional>
#include <string>
#include <vector>

#include "core/base/id.h"

namespace chispa {

/// What a zone takes of one fixture: all of it, or one segment; as the data runs, or backwards.
struct ZonePart {
  FixtureId fixture;
  std::optional<int> segment;
  bool reversed = false;

  bool operator==(const ZonePart&) const = default;
};

/// How a zone's parts make rows and columns.
enum class ZoneLayout {
  Strand,      ///< one row: all cells one behind the other
  Strings,     ///< each part is a column of its own, its cells from bottom to top
  SideBySide,  ///< each part keeps its grid; grids stand from left to right
};

/// A named set of cells on which light is programmed; from any fixtures, in playing order.
struct Zone {
  ZoneId id;
  std::string name;
  std::vector<ZonePart> parts;
  ZoneLayout layout = ZoneLayout::Strand;
  /// Consecutive pixels that show one colour; 0 makes each part a single cell.
  int pixelsPerCell = 1;

  bool operator==(const Zone&) const = default;
};

}  // namespace chispa
