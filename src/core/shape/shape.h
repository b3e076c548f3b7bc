// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
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

/// Rows and columns in the x-y plane of its own frame, x to the right and y up, centred on its origin.
struct GridShape {
  int columns = 8;
  int rows = 8;
  double columnPitch_m = 1.0 / 60;
  double rowPitch_m = 1.0 / 60;
  Corner start = Corner::BottomLeft;
  GridRuns runs = GridRuns::AlongRows;
  bool serpentine = true;

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

using Shape = std::variant<LineShape, GridShape, ArcShape>;

/// How many pixels a shape has.
int pixelCount(const Shape& shape);

/// Every pixel's place in the shape's own frame, in metres and data order.
std::vector<Vec3> localPositions(const Shape& shape);

/// Length of strip the shape needs, in metres (a grid: all its rows or columns).
double stripLength_m(const Shape& shape);

/// The shape's word in files and lists: "line", "grid", "arc".
std::string_view shapeName(const Shape& shape);

/// Row and column (from 0, bottom left) of a pixel of a grid in data order.
struct GridCell {
  int row = 0;
  int column = 0;

  bool operator==(const GridCell&) const = default;
};
GridCell gridCell(const GridShape& grid, int pixel);

}  // namespace chispa
