// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <chrono>

namespace chispa {

/// A position in a score or a length of time; integral, so that sums and comparisons are exact.
using Micros = std::chrono::microseconds;

/// A stretch of time, its end not in it.
struct TimeSpan {
  Micros from{0};
  Micros length{0};

  Micros end() const { return from + length; }
  bool operator==(const TimeSpan&) const = default;
};

/// Micros → seconds, for formulas; never to be stored.
constexpr double seconds(Micros t) {
  return static_cast<double>(t.count()) * 1e-6;
}

/// Seconds → the nearest Micros.
constexpr Micros micros(double s) {
  return Micros(static_cast<Micros::rep>(s * 1e6 + (s < 0 ? -0.5 : 0.5)));
}

}  // namespace chispa
