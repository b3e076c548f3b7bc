// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <optional>
#include <string>
#include <vector>

#include "core/base/id.h"
#include "core/base/vec3.h"

namespace chispa {

/// Pixels first, first + step, first + 2 step … : `count` of them.
struct PixelRun {
  int first = 0;
  int count = 0;
  int step = 1;

  bool operator==(const PixelRun&) const = default;
};

/// What a zone takes of one fixture: all of it, one segment, or some pixels of either; as the data runs, or
/// backwards.
struct ZonePart {
  FixtureId fixture;
  std::optional<int> segment;
  bool reversed = false;
  /// Which pixels of the fixture, or of the segment if one is named; empty for all of them.
  std::vector<PixelRun> runs = {};

  bool operator==(const ZonePart&) const = default;
};

/// How a zone's parts make rows and columns.
enum class ZoneLayout {
  Strand,      ///< one row: all cells one behind the other
  Strings,     ///< each part is a column of its own, its cells from bottom to top
  SideBySide,  ///< each part keeps its grid; grids stand from left to right
  Panels,      ///< grids joined in rows and columns, one picture over all of them
};

/// True if parts that are grids keep their rows and columns.
constexpr bool keepsGrids(ZoneLayout layout) {
  return layout == ZoneLayout::SideBySide || layout == ZoneLayout::Panels;
}

/// In which order a zone plays: a strand sorts its cells, strings and grids sort their parts.
enum class ZoneOrder {
  Listed,       ///< as the parts are listed
  LeftToRight,  ///< by x
  FrontToBack,  ///< by y
  Upward,       ///< by z
  Around,       ///< by angle about the zone's centre, counter-clockwise
  Outward,      ///< by distance from the zone's centre
};

/// A named set of cells on which light is programmed; from any fixtures, in playing order.
struct Zone {
  ZoneId id;
  std::string name;
  std::vector<ZonePart> parts;
  ZoneLayout layout = ZoneLayout::Strand;
  /// Consecutive pixels that show one colour (in a grid: a square of so many each way); 0 makes each part a
  /// single cell.
  int pixelsPerCell = 1;
  /// The parts lie on one another: a cell has the like pixels of all of them.
  bool playsAsOne = false;
  ZoneOrder order = ZoneOrder::Listed;
  /// Of panels: so many stand in a row, the first on the upper left; 0: each cell stands where it hangs.
  int panelsAcross = 2;
  /// Of panels that stand where they hang: room between them counts, and light passes through it unseen.
  bool countsGaps = false;
  /// A sorted zone plays from its last to its first.
  bool backwards = false;
  /// Where angle and radius are measured from, in metres; the middle of the zone if there is none.
  std::optional<Vec3> centre_m = {};
  /// The only score that has this zone; null for a zone of the show, which all have.
  ScoreId score = {};

  bool operator==(const Zone&) const = default;
};

}  // namespace chispa
