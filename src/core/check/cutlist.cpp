// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/check/cutlist.h"

#include <algorithm>
#include <cmath>
#include <map>

#include "core/shape/strippieces.h"

namespace chispa {
namespace {

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

std::optional<OffReel> offReel(const Show& show, const Fixture& fixture) {
  const StripType& strip = stripTypeOf(show, fixture);
  if (strip.build != StripBuild::Reel) return std::nullopt;
  for (const Segment& segment : fixture.segments)
    for (const StripPiece& piece : stripPiecesOf(segment.shape)) {
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
        for (const StripPiece& piece : stripPiecesOf(segment.shape)) {
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
