// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <compare>
#include <string_view>
#include <variant>
#include <vector>

#include "core/base/vec3.h"

namespace chispa {

/// A straight strip along +x of its own frame; pixel i sits at (i + ½) pitches.
struct LineShape {
  int count = 1;
  double pitch_m = 1.0 / 60;

  bool operator==(const LineShape&) const = default;
};

/// Where a grid's data begins, seen from the front.
enum class Corner { BottomLeft, BottomRight, TopLeft, TopRight };
/// Which way a grid's first strip runs.
enum class GridRuns { AlongRows, AlongColumns };

/// Row and column of a matrix, from 0 at the bottom left.
struct GridCell {
  int row = 0;
  int column = 0;

  auto operator<=>(const GridCell&) const = default;
};

/// Rows and columns in the x-y plane of its own frame, x to the right and y up, centred on its origin.
struct GridShape {
  int columns = 8;
  int rows = 8;
  double columnPitch_m = 1.0 / 60;
  double rowPitch_m = 1.0 / 60;
  Corner start = Corner::BottomLeft;
  GridRuns runs = GridRuns::AlongRows;
  bool serpentine = true;
  /// Pixels that the last strip lacks, where the count does not fill all rows.
  int missing = 0;
  /// Cells without a pixel, in rising order; the data passes over them.
  std::vector<GridCell> holes = {};

  bool operator==(const GridShape&) const = default;
};

/// A full ring or part of one in the x-y plane of its own frame, about its origin.
struct ArcShape {
  int count = 12;
  double radius_m = 0.1;
  /// Where pixel 0's strip begins, counter-clockwise from +x.
  double start_deg = 0;
  /// How far it goes; positive is counter-clockwise, ±360 a full ring.
  double sweep_deg = 360;

  bool operator==(const ArcShape&) const = default;
};

/// A strip laid through corners; its pixels are spread evenly over the whole length. It is closed if it ends
/// in its first corner.
struct PathShape {
  int count = 60;
  std::vector<Vec3> corners;
  /// Corners are rounded into one smooth curve through them (centripetal Catmull-Rom).
  bool smooth = false;

  bool operator==(const PathShape&) const = default;
};

/// Rings one within the other in the x-y plane, their radii evenly spaced.
struct RingsShape {
  /// Pixels of each ring, the innermost first.
  std::vector<int> counts = {8, 16, 24};
  double innerRadius_m = 0.05;
  double outerRadius_m = 0.15;
  double start_deg = 0;
  /// Data begins on the outermost ring.
  bool outsideIn = true;
  bool clockwise = false;

  bool operator==(const RingsShape&) const = default;
};

/// A strip wound about z: flat if it does not rise, a helix if it does. Pixels are evenly spaced along it.
struct SpiralShape {
  int count = 120;
  double turns = 3;
  double startRadius_m = 0.1;
  double endRadius_m = 0.5;
  double rise_m = 0;

  bool operator==(const SpiralShape&) const = default;
};

/// Which way the strings of a cone or of spokes take their data.
enum class StringWay { Forth, Back, Serpentine };

/// Equal strings up the side of a cone, or of a cylinder, about z of its own frame.
struct ConeShape {
  int strings = 12;
  int perString = 30;
  double bottomRadius_m = 1;
  double topRadius_m = 0.1;
  double height_m = 2;
  double start_deg = 0;
  double sweep_deg = 360;
  /// Forth is upward.
  StringWay way = StringWay::Forth;

  bool operator==(const ConeShape&) const = default;
};

/// Equal strings from a centre outward in the x-y plane.
struct SpokesShape {
  int spokes = 12;
  int perSpoke = 20;
  double innerRadius_m = 0.2;
  double outerRadius_m = 1;
  double start_deg = 0;
  double sweep_deg = 360;
  /// Forth is outward.
  StringWay way = StringWay::Forth;

  bool operator==(const SpokesShape&) const = default;
};

/// Pixels wherever they are: measured, imported, or found.
struct PointsShape {
  std::vector<Vec3> points;

  bool operator==(const PointsShape&) const = default;
};

using Shape = std::variant<LineShape, GridShape, ArcShape, PathShape, RingsShape, SpiralShape, ConeShape,
                           SpokesShape, PointsShape>;

/// How many pixels a shape has.
int pixelCount(const Shape& shape);

/// Every pixel's place in the shape's own frame, in metres and data order.
std::vector<Vec3> localPositions(const Shape& shape);

/// Length of strip the shape needs, in metres (a grid: all its rows or columns; points: the way from each to
/// the next).
double stripLength_m(const Shape& shape);

/// The shape's word in files and lists: "line", "grid", "arc" …
std::string_view shapeName(const Shape& shape);

/// Row and column of every pixel, in data order, of a shape that has them: grids, cones (a string is a
/// column, upward) and spokes (a spoke is a column, outward). Empty for all others.
std::vector<GridCell> matrixCells(const Shape& shape);
/// True if matrixCells() has a say.
bool isMatrix(const Shape& shape);

/// The shape seen in a mirror: y of its own frame becomes −y. Data order stays.
Shape mirrored(const Shape& shape);

}  // namespace chispa
