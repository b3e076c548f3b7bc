// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

namespace chispa {

/// A point of a curve: where, as a share 0–1 of what it runs along, and its value, 0–1 of its range.
struct CurvePoint {
  double at = 0;
  double value = 0;

  bool operator==(const CurvePoint&) const = default;
};

}  // namespace chispa
