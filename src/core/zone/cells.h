// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <array>
#include <cstdint>
#include <span>
#include <vector>

#include "core/zone/frame.h"
#include "core/zone/pixelmap.h"

namespace chispa {

/// The ways in which an effect can run through a zone; each gives every cell a place from 0 to 1.
/// Plane is one that stands at an angle in space, and has no table: its places depend on the angle
/// (planePlaces()).
enum class Axis { Along, Columns, Rows, Around, Outward, Height, Plane };
inline constexpr int kAxes = 6;

/// A zone's cells: which pixels each has, and where it is. Structure of arrays, in playing order.
struct ZoneCells {
  int columns = 0;
  int rows = 0;
  std::vector<int> column;
  std::vector<int> row;
  /// The middle of each cell in the world, in metres.
  std::vector<Vec3> position_m;
  /// What angle and radius are measured in.
  ZoneFrame frame;
  /// Places 0–1 by axis: [axis][cell]. Around is the angle in turns, outward the radius as a share of the
  /// largest.
  std::array<std::vector<float>, kAxes> places;
  /// Where each cell lies on the zone's face, for light that has two directions: −1 to 1 along the longer
  /// side, 0 in the middle. A matrix or a set of strings is seen as its columns and rows, a strand as it lies
  /// in its frame.
  std::vector<float> x, y;
  /// How far the face reaches from its middle, half a cell more than its outermost cells' middles.
  float halfWidth = 1, halfHeight = 1;
  /// Which piece each cell belongs to, that is which of the zone's parts, and its place 0–1 along it. Pieces
  /// are numbered as one walks from the first of them to the nearest that is left, and so on.
  std::vector<std::uint16_t> piece;
  std::vector<float> alongPiece;
  int pieces = 0;
  /// How long the zone is by axis, in metres: from cell to cell without what lies between pieces, along a
  /// row, up a column, once round, outward, and up; and how large it is in space.
  std::array<double, kAxes> length_m{};
  Vec3 size_m;
  /// Pixels of cell i (numbers of PixelMap): pixels[firstPixel[i]] up to pixels[firstPixel[i + 1]], end
  /// excluded.
  std::vector<std::uint32_t> firstPixel;
  std::vector<std::uint32_t> pixels;
  /// Number, column and row of each cell as numbers that formulas compute with.
  std::vector<float> indexes, columnNumbers, rowNumbers;
  /// The cell at each place of a zone with rows, [column × rows + row]; an empty place has its neighbour's.
  std::vector<std::uint32_t> cellOfPlace;
  /// True if cell i is the one pixel pixels[0] + i, as it is in a zone of one whole fixture.
  bool isPlain = false;

  int count() const { return static_cast<int>(column.size()); }
  std::span<const float> along(Axis axis) const { return places[static_cast<std::size_t>(axis)]; }
  /// `axis`, or along the zone where it has no such one: rows and columns of what is a line.
  Axis usable(Axis axis) const {
    const bool hasNone = (axis == Axis::Rows && rows <= 1) || (axis == Axis::Columns && columns <= 1);
    return hasNone ? Axis::Along : axis;
  }
  /// The length along `axis`, in metres, never 0; of a plane in space, across the zone in the plane's
  /// direction.
  double lengthAlong(Axis axis, double turn_deg, double tilt_deg) const;
  std::span<const std::uint32_t> pixelsOf(int cell) const;
  /// The cell at a place of a zone with rows; both within bounds.
  std::size_t cellAt(int column_, int row_) const {
    return cellOfPlace[static_cast<std::size_t>(column_ * rows + row_)];
  }
};

/// Places 0–1 of all cells along the direction that looks `turn_deg` counter-clockwise from x and `tilt_deg`
/// up, into `out`, which has room for them. Real-time safe.
void planePlaces(const ZoneCells& cells, double turn_deg, double tilt_deg, std::span<float> out) noexcept;

/// Resolves `zone` against the fixtures of `show`; parts whose fixture is gone are passed over.
ZoneCells cellsOf(const Show& show, const PixelMap& map, const Zone& zone);

}  // namespace chispa
