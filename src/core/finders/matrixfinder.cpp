// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/finders/matrixfinder.h"

#include <set>

namespace chispa {
namespace {

constexpr Corner kCorners[] = {Corner::BottomLeft, Corner::BottomRight, Corner::TopLeft, Corner::TopRight};

/// Every wiring of a matrix of at least two lines of two.
std::vector<MatrixWiring> wiringsOf(int pixels) {
  std::vector<MatrixWiring> all;
  for (int columns = 2; columns <= pixels / 2; ++columns) {
    if (pixels % columns != 0) continue;
    for (const Corner corner : kCorners)
      for (const GridRuns runs : {GridRuns::AlongRows, GridRuns::AlongColumns})
        for (const bool serpentine : {false, true})
          all.push_back({columns, pixels / columns, corner, runs, serpentine});
  }
  return all;
}

int seenOf(const MatrixWiring& wiring, const MatrixPicture& picture) {
  switch (picture.kind) {
    case MatrixPicture::Kind::Head:
      return 2 * static_cast<int>(wiring.start) + (wiring.runs == GridRuns::AlongColumns ? 1 : 0);
    case MatrixPicture::Kind::Line: {
      constexpr int kMaxCounted = 6;
      const int begun = (picture.pixels + wiring.line() - 1) / wiring.line();
      return begun >= kMaxCounted ? 2 * kMaxCounted
                                  : 2 * begun + (picture.pixels % wiring.line() == 0 ? 1 : 0);
    }
    case MatrixPicture::Kind::Return:
      return wiring.isSerpentine ? 1 : 0;
  }
  return 0;
}

}  // namespace

Elimination<MatrixWiring> matrixFinder(int pixels, std::vector<MatrixPicture>& pictures) {
  auto wirings = wiringsOf(pixels);
  std::set<int> lines;
  for (const MatrixWiring& wiring : wirings) lines.insert(wiring.line());
  pictures = {{MatrixPicture::Kind::Head, 3}};
  for (const int line : lines) pictures.push_back({MatrixPicture::Kind::Line, line});
  pictures.push_back({MatrixPicture::Kind::Return, 0});
  const auto questions = static_cast<int>(pictures.size());
  // The return can be lit only once the length of a line is known, but it divides worst until then anyway.
  return {std::move(wirings), questions, questions, [pictures](const MatrixWiring& wiring, int question) {
            return seenOf(wiring, pictures[static_cast<std::size_t>(question)]);
          }};
}

}  // namespace chispa
