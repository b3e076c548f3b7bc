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
enum class Axis { Along, Columns, Rows, Around, Outward, Height };
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
  /// Places 0–1 by axis: [axis][cell]. Around is the angle in turns, outward the radius as a share of the largest.
  std::array<std::vector<float>, kAxes> places;
  /// Pixels of cell i (numbers of PixelMap): pixels[firstPixel[i]] up to pixels[firstPixel[i + 1]], end excluded.
  std::vector<std::uint32_t> firstPixel;
  std::vector<std::uint32_t> pixels;
  /// True if cell i is the one pixel pixels[0] + i, as it is in a zone of one whole fixture.
  bool isPlain = false;

  int count() const { return static_cast<int>(column.size()); }
  std::span<const float> along(Axis axis) const { return places[static_cast<std::size_t>(axis)]; }
  std::span<const std::uint32_t> pixelsOf(int cell) const;
};

/// Resolves `zone` against the fixtures of `show`; parts whose fixture is gone are passed over.
ZoneCells cellsOf(const Show& show, const PixelMap& map, const Zone& zone);

}  // namespace chispa
