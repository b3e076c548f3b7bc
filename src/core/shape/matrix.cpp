// SPDX-License-Identifier: GPL-3.0-or-later
#include <algorithm>

#include "core/base/overloaded.h"
#include "core/shape/shape.h"

namespace chispa {
namespace {

/// The cell that the data reaches as its `i`th if there are no holes.
GridCell fullGridCell(const GridShape& grid, int i) {
  const bool alongRows = grid.runs == GridRuns::AlongRows;
  const int stripLength = alongRows ? grid.columns : grid.rows;
  const int strip = i / stripLength;
  const int along = grid.serpentine && strip % 2 == 1 ? stripLength - 1 - i % stripLength : i % stripLength;
  GridCell at = alongRows ? GridCell{strip, along} : GridCell{along, strip};
  if (grid.start == Corner::TopLeft || grid.start == Corner::TopRight) at.row = grid.rows - 1 - at.row;
  if (grid.start == Corner::BottomRight || grid.start == Corner::TopRight)
    at.column = grid.columns - 1 - at.column;
  return at;
}

std::vector<GridCell> cellsOf(const GridShape& grid) {
  std::vector<GridCell> cells;
  const int reached = grid.columns * grid.rows - grid.missing;
  cells.reserve(static_cast<std::size_t>(std::max(0, reached)));
  for (int i = 0; i < reached; ++i) {
    const GridCell at = fullGridCell(grid, i);
    if (!std::binary_search(grid.holes.begin(), grid.holes.end(), at)) cells.push_back(at);
  }
  return cells;
}

/// Strings that stand side by side, each a column from its foot up.
std::vector<GridCell> cellsOfStrings(int strings, int perString, StringWay way) {
  std::vector<GridCell> cells;
  cells.reserve(static_cast<std::size_t>(strings * perString));
  for (int string = 0; string < strings; ++string) {
    const bool back = way == StringWay::Back || (way == StringWay::Serpentine && string % 2 == 1);
    for (int i = 0; i < perString; ++i) cells.push_back({back ? perString - 1 - i : i, string});
  }
  return cells;
}

}  // namespace

std::vector<GridCell> matrixCells(const Shape& shape) {
  return std::visit(
      Overloaded{[](const GridShape& grid) { return cellsOf(grid); },
                 [](const ConeShape& s) { return cellsOfStrings(s.strings, s.perString, s.way); },
                 [](const SpokesShape& s) { return cellsOfStrings(s.spokes, s.perSpoke, s.way); },
                 [](const auto&) { return std::vector<GridCell>{}; }},
      shape);
}

bool isMatrix(const Shape& shape) {
  return std::holds_alternative<GridShape>(shape) || std::holds_alternative<ConeShape>(shape) ||
         std::holds_alternative<SpokesShape>(shape);
}

}  // namespace chispa
