// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/show/cutlist.h"

#include <algorithm>
#include <cmath>
#include <map>

#include "core/base/overloaded.h"
#include "core/shape/way.h"

namespace chispa {
namespace {

struct Piece {
  int pixels;
  double length_m;
};

std::vector<Piece> piecesOf(const GridShape& grid) {
  const bool alongRows = grid.runs == GridRuns::AlongRows;
  const double pitch = alongRows ? grid.columnPitch_m : grid.rowPitch_m;
  std::map<int, int> pixelsOfStrip;
  for (const GridCell& cell : matrixCells(grid)) ++pixelsOfStrip[alongRows ? cell.row : cell.column];
  std::vector<Piece> pieces;
  for (const auto& [strip, pixels] : pixelsOfStrip) pieces.push_back({pixels, pixels * pitch});
  return pieces;
}

std::vector<Piece> equalPieces(int count, int pixels, double whole_m) {
  return {static_cast<std::size_t>(count), {pixels, whole_m / std::max(1, count)}};
}

std::vector<Piece> piecesOf(const Shape& shape) {
  return std::visit(
      Overloaded{
          [](const GridShape& s) { return piecesOf(s); },
          [&](const ConeShape& s) { return equalPieces(s.strings, s.perString, stripLength_m(shape)); },
          [&](const SpokesShape& s) { return equalPieces(s.spokes, s.perSpoke, stripLength_m(shape)); },
          [](const RingsShape& s) {
            std::vector<Piece> rings;
            for (std::size_t i = 0; i < s.counts.size(); ++i)
              rings.push_back({s.counts[i], 2 * kPi * ringRadius_m(s, i)});
            return rings;
          },
          [](const PointsShape&) { return std::vector<Piece>{}; },
          [&](const auto& s) { return equalPieces(s.count > 1 ? 1 : 0, s.count, stripLength_m(shape)); }},
      shape);
}

/// Pieces and reels that differ by no more are taken as the same.
constexpr double kAgrees = 0.02;

double reelLength_m(const StripType& strip, int pixels) {
  if (strip.build != StripBuild::Reel) return 0;
  const int cuts = (pixels + strip.pixelsPerCut - 1) / strip.pixelsPerCut;
  return cuts * strip.pixelsPerCut / strip.pixelsPerMetre;
}

}  // namespace

bool agreesWithReel(const CutPiece& piece) {
  return std::abs(piece.length_m - piece.reel_m) <= kAgrees * piece.reel_m;
}

std::vector<double> copperPitches_m(const StripType& strip, const Fixture& fixture) {
  std::vector<double> pitches;
  const double reel_m = 1 / strip.pixelsPerMetre;
  for (const Segment& segment : fixture.segments) {
    double length_m = 0;
    int pixels = 0;
    for (const Piece& piece : piecesOf(segment.shape)) {
      length_m += piece.length_m;
      pixels += piece.pixels;
    }
    const double apart_m = pixels > 1 ? length_m / pixels : reel_m;
    pitches.push_back(strip.build == StripBuild::Reel ? std::max(reel_m, apart_m) : apart_m);
  }
  return pitches;
}

std::optional<OffReel> offReel(const Show& show, const Fixture& fixture) {
  const StripType& strip = stripTypeOf(show, fixture);
  if (strip.build != StripBuild::Reel) return std::nullopt;
  for (const Segment& segment : fixture.segments)
    for (const Piece& piece : piecesOf(segment.shape)) {
      const double reel_m = piece.pixels / strip.pixelsPerMetre;
      if (piece.pixels < 2 || std::abs(piece.length_m - reel_m) <= kAgrees * reel_m) continue;
      const auto fits = static_cast<int>(std::lround(piece.length_m * strip.pixelsPerMetre));
      return OffReel{piece.pixels, piece.length_m, reel_m, cuttableCount(strip, fits)};
    }
  return std::nullopt;
}

std::vector<CutPiece> cutList(const Show& show) {
  std::vector<CutPiece> list;
  for (const auto& strip : show.stripTypes) {
    // Longest first, in millimetres.
    std::map<std::pair<long, int>, CutPiece, std::greater<>> pieces;
    for (const auto& fixture : show.fixtures) {
      if (fixture->stripType != strip->id) continue;
      for (const Segment& segment : fixture->segments)
        for (const Piece& piece : piecesOf(segment.shape)) {
          const long mm = std::lround(piece.length_m * 1000);
          CutPiece& alike = pieces[{mm, piece.pixels}];
          alike.stripType = strip->id;
          alike.pixels = piece.pixels;
          alike.length_m = static_cast<double>(mm) / 1000;
          alike.reel_m = reelLength_m(*strip, piece.pixels);
          ++alike.count;
          if (alike.fixtures.empty() || alike.fixtures.back() != fixture->name)
            alike.fixtures.push_back(fixture->name);
        }
    }
    for (auto& [key, piece] : pieces) list.push_back(std::move(piece));
  }
  return list;
}

}  // namespace chispa
