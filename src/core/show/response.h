// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <vector>

#include "core/show/curvepoint.h"

namespace chispa {

/// The dimming curve of an LED: the light it gives for the value it is sent, both as shares 0–1 of the most.
struct Response {
  /// Light = value to this power, 0.1–10: 1 for plain pulse-width strips, more where a driver bends it.
  double exponent = 1;
  /// Drawn instead, if there are any: light (`value`) over value sent (`at`), rising, straight between
  /// points; dark at 0 and full at 1 where no point says otherwise.
  std::vector<CurvePoint> points = {};
  /// Smallest value at which it lights, 0–0.5; less than that leaves it dark.
  double least = 0;

  bool operator==(const Response&) const = default;

  /// True if the exponent says all.
  bool isPower() const { return points.empty() && least == 0; }
  /// True if light is the value.
  bool isEven() const { return isPower() && exponent == 1; }
  double lightOf(double value) const;
  /// The same as if the smallest values lit.
  double bareLightOf(double value) const;
  /// The least value whose light is `light`, whatever `least` says.
  double bareValueOf(double light) const;
  /// The value to send for `light`: of dark and `least` the nearer in light, where it lies between them.
  double valueOf(double light) const;
  /// The value below which valueOf() chooses dark.
  double darkBelow() const;
};

}  // namespace chispa
