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
