// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <algorithm>
#include <cstdint>
#include <limits>
#include <span>
#include <vector>

#include "core/show/zone.h"
#include "core/zone/partpixels.h"

namespace chispa {

/// A cell on its way into a zone: where it stands, and which stretch of the drawn-up pixels it has.
struct Draft {
  int column = 0;
  int row = 0;
  std::size_t first = 0;
  std::size_t count = 0;
};

/// Cells of one part, or of all that are laid together.
struct Drafts {
  std::vector<Draft> cells;
  std::vector<std::uint32_t> pixels;
  /// How many columns it takes beside others; more than its cells reach where it is part of a matrix.
  int columns = 0;

  void reserve(std::size_t cellCount, std::size_t pixelCount) {
    cells.reserve(cellCount);
    pixels.reserve(pixelCount);
  }
  void add(int column, int row, std::span<const std::uint32_t> taken) {
    cells.push_back({column, row, pixels.size(), taken.size()});
    pixels.insert(pixels.end(), taken.begin(), taken.end());
    columns = std::max(columns, column + 1);
  }
  /// Moves all so that the lowest row and column are 0.
  void settle() {
    int lowColumn = std::numeric_limits<int>::max();
    int lowRow = lowColumn;
    for (const Draft& cell : cells) {
      lowColumn = std::min(lowColumn, cell.column);
      lowRow = std::min(lowRow, cell.row);
    }
    for (Draft& cell : cells) {
      cell.column -= lowColumn;
      cell.row -= lowRow;
    }
  }
  std::span<const std::uint32_t> pixelsOf(const Draft& cell) const {
    return std::span(pixels).subspan(cell.first, cell.count);
  }
};

/// A part as a strip of cells of `perCell` pixels (0: one cell): (0, 0), (1, 0) … in columns, or in rows if
/// it stands upright.
Drafts stripOf(const PartPixels& part, int perCell, bool upright);
/// A part as the grid it is; a part that is no grid becomes a row.
Drafts gridOf(const PartPixels& part, int perCell);

/// Lays parts one after the other, or on one another.
Drafts laidTogether(const Zone& zone, const std::vector<Drafts>& parts);
/// Panels in rows, `across` a row, the first on the upper left: as wide and as high as the largest of their
/// column and row.
Drafts joinedInRows(const std::vector<Drafts>& panels, int across);
/// Every cell where it hangs: the step is the least distance between neighbours on the data line.
Drafts joinedAsTheyHang(const Drafts& cells, const PixelMap& map, bool countsGaps);

/// Where pixels lie in the middle, in metres.
Vec3 middleOf(const PixelMap& map, std::span<const std::uint32_t> pixels);

}  // namespace chispa
