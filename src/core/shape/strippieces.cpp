// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/shape/strippieces.h"

#include <algorithm>
#include <map>

#include "core/base/overloaded.h"
#include "core/shape/polyline.h"

namespace chispa {
namespace {

std::vector<StripPiece> piecesOf(const GridShape& grid) {
  const bool alongRows = grid.runs == GridRuns::AlongRows;
  const double pitch = alongRows ? grid.columnPitch_m : grid.rowPitch_m;
  std::map<int, int> pixelsOfStrip;
  for (const GridCell& cell : matrixCells(grid)) ++pixelsOfStrip[alongRows ? cell.row : cell.column];
  std::vector<StripPiece> pieces;
  for (const auto& [strip, pixels] : pixelsOfStrip) pieces.push_back({pixels, pixels * pitch});
  return pieces;
}

std::vector<StripPiece> equalPieces(int count, int pixels, double whole_m) {
  return {static_cast<std::size_t>(count), {pixels, whole_m / std::max(1, count)}};
}

}  // namespace

std::vector<StripPiece> stripPiecesOf(const Shape& shape) {
  return std::visit(
      Overloaded{
          [](const GridShape& s) { return piecesOf(s); },
          [&](const ConeShape& s) { return equalPieces(s.strings, s.perString, stripLength_m(shape)); },
          [&](const SpokesShape& s) { return equalPieces(s.spokes, s.perSpoke, stripLength_m(shape)); },
          [](const RingsShape& s) {
            std::vector<StripPiece> rings;
            for (std::size_t i = 0; i < s.counts.size(); ++i)
              rings.push_back({s.counts[i], 2 * kPi * ringRadius_m(s, i)});
            return rings;
          },
          [](const PointsShape&) { return std::vector<StripPiece>{}; },
          [&](const auto& s) { return equalPieces(s.count > 1 ? 1 : 0, s.count, stripLength_m(shape)); }},
      shape);
}

}  // namespace chispa
