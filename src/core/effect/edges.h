// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <algorithm>
#include <cmath>

#include "core/effect/effect.h"

namespace chispa {

// Edges that move without steps: what a cell shows is the mean over its own extent and over the time that
// the eye takes together. Plain arithmetic without branches, for loops over cells.

/// That time, about: three frames at 40 a second, so that no edge crosses a cell within one.
inline constexpr double kSeenTogether_s = 0.075;

/// What an edge is spread over that is to be hard: each cell is on or off, as its middle is.
inline constexpr float kHardEdge = 1e-4f;

/// Puts behind `own` whether edges are hard: what moves goes from cell to cell then, in steps.
inline std::vector<ParamSpec> hardOrSoft(std::vector<ParamSpec> own) {
  own.push_back(switchParam("hard", "Hard edges", false));
  return own;
}

/// The share of an axis that one cell covers, about: exact along a line and across a matrix.
inline double cellWidth(const ZoneCells& cells, Axis axis) {
  const auto count = static_cast<double>(std::max(1, cells.count()));
  switch (axis) {
    case Axis::Along:
      return 1 / count;
    case Axis::Columns:
      return 1.0 / std::max(1, cells.columns);
    case Axis::Rows:
      return 1.0 / std::max(1, cells.rows);
    default:
      // In space, a zone without rows may have its cells anywhere.
      return 1 / std::min(cells.rows > 1 ? std::max(cells.columns, cells.rows) : count, 64.0);
  }
}
/// Of an axis that an effect runs through by its parameter "across", its first.
inline double cellWidth(const EffectInput& in) {
  return cellWidth(in.cells, in.cells.usable(in.params.axis(0)));
}

/// What an edge is spread over that moves at `pace` of the axis a second: a cell, and its way while it is
/// seen together; in lengths of which `repeats` make the axis, a half of one at most.
inline double edgeBlur(double cell, double pace, double repeats, bool isHard = false) {
  if (isHard) return static_cast<double>(kHardEdge);
  return std::clamp((cell + pace * kSeenTogether_s) * repeats, 1e-4, 0.5);
}

/// How many lamps something moves by while it is seen together, four at most.
inline double lampBlur(double lampsPerSecond) {
  return std::min(4.0, std::abs(lampsPerSecond) * kSeenTogether_s);
}

/// How much of something `width` wide lies beyond an edge, if its middle lies `beyond` beyond it: 0–1.
inline float past(float beyond, float width) {
  const float share = beyond / width + 0.5f;
  return share > 0 ? (share < 1 ? share : 1.f) : 0.f;
}

/// How much of something `width` wide, its middle at `at`, lies within [from, to].
inline float coverage(float from, float to, float at, float width) {
  return past(at - from, width) - past(at - to, width);
}

/// How white the head of something hot is, `behind` of its tail's length behind the head: white-hot in front.
inline float heatOf(float behind) {
  constexpr float kWhitest = 0.6f;
  constexpr float kCoolsWithin = 0.3f;
  const float heat = 1 - behind / kCoolsWithin;
  return kWhitest * (heat > 0 ? (heat < 1 ? heat : 1.f) : 0.f);
}

}  // namespace chispa
