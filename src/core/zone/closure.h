// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <algorithm>
#include <cmath>

#include "core/zone/cells.h"

namespace chispa {

/// True if a zone comes back along `axis` to where it began: its last cell lies beside its first one, as on a
/// ring, round a frame, or with the columns of a drum. Real-time safe.
inline bool isClosed(const ZoneCells& cells, Axis axis) {
  constexpr int kFewest = 6;
  constexpr double kBeside = 1.75;
  if (axis == Axis::Around) return true;
  const auto comesBack = [&](int count, std::size_t first, std::size_t last) {
    if (count < kFewest) return false;
    const double step_m = cells.lengthAlong(axis, 0, 0) / count;
    return length(cells.position_m[last] - cells.position_m[first]) < kBeside * step_m;
  };
  switch (axis) {
    case Axis::Along:
      return cells.rows <= 1 && comesBack(cells.count(), 0, static_cast<std::size_t>(cells.count()) - 1);
    case Axis::Columns:
      return cells.rows > 1 && comesBack(cells.columns, cells.cellAt(0, cells.rows / 2),
                                         cells.cellAt(cells.columns - 1, cells.rows / 2));
    case Axis::Rows:
      return cells.rows > 1 && comesBack(cells.rows, cells.cellAt(cells.columns / 2, 0),
                                         cells.cellAt(cells.columns / 2, cells.rows - 1));
    default:
      return false;
  }
}

/// How far two places 0–1 of an axis lie apart, by the shorter way where it is closed.
inline float apart(float a, float b, bool closed) {
  const float way = std::abs(a - b);
  return closed ? std::min(way, 1 - way) : way;
}

}  // namespace chispa
