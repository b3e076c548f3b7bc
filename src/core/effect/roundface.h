// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <algorithm>
#include <cmath>

#include "core/base/curves.h"
#include "core/effect/effect.h"
#include "core/zone/cells.h"

namespace chispa {

/// Puts behind other parameters whether a thing lies flat or round the zone's middle, and where it begins.
inline std::vector<ParamSpec> withSurface(std::vector<ParamSpec> params) {
  params.push_back(
      choiceParam("surface", "Surface", {{"flat", "flat, as seen"}, {"round", "wrapped around the middle"}}));
  ParamSpec begins = numberParam("begins", "Begins at", "°", -180, 180, 0, 5);
  begins.onlyIf = "surface";
  begins.onlyIfWord = "round";
  params.push_back(std::move(begins));
  return params;
}

/// A zone as what goes round its middle, unrolled: how far round each cell is, and how high, or how far out
/// where all is level. Seen from outside, or from above, it is read from left to right.
class RoundFace {
 public:
  explicit RoundFace(const ZoneCells& cells) : cells_(cells) {
    double low = 1e30, high = -1e30, near = 1e30, far = 0, sum = 0;
    for (const Vec3& p : cells.position_m) {
      const double radius = cells.frame.radius_m(p);
      low = std::min(low, p.z);
      high = std::max(high, p.z);
      near = std::min(near, radius);
      far = std::max(far, radius);
      sum += radius;
    }
    const auto count = static_cast<double>(std::max<std::size_t>(1, cells.position_m.size()));
    byHeight_ = high - low > far - near;
    const double wide_m = std::max(byHeight_ ? high - low : far - near, 1e-9);
    const double turn_m = 2 * 3.14159265358979 * sum / count;
    // Rows lie about as far apart as the cells of a row.
    rows_ = static_cast<float>(
        std::clamp(std::round(std::sqrt(count * wide_m / std::max(1e-9, turn_m)) + 0.4), 1.0, count));
    // One row alone is as high as a cell is long.
    const double tall_m = rows_ > 1 ? wide_m * static_cast<double>(rows_ / (rows_ - 1)) : turn_m / count;
    ratio_ = static_cast<float>(turn_m / std::max(1e-9, tall_m));
    innermost_ = far > 0 ? static_cast<float>(near / far) : 0;
  }

  /// How often the height goes into a turn.
  float ratio() const { return ratio_; }
  /// Rows of cells, about.
  float rows() const { return rows_; }
  float columns() const { return static_cast<float>(cells_.count()) / rows_; }
  /// How far round cell `i` is from where the angle is 0, 0–1, and how high, 0 at the lower end.
  void find(std::size_t i, float& round, float& high) const {
    const float turn = cells_.along(Axis::Around)[i];
    round = byHeight_ ? turn : 1 - turn;
    const float place = byHeight_ ? cells_.along(Axis::Height)[i]
                        : innermost_ < 1 - 1e-6f
                            ? (cells_.along(Axis::Outward)[i] - innermost_) / (1 - innermost_)
                            : 0.5f;
    // The outer rows are half a row from the edge.
    high = rows_ > 1 ? (place * (rows_ - 1) + 0.5f) / rows_ : 0.5f;
  }

 private:
  const ZoneCells& cells_;
  bool byHeight_ = false;
  float rows_ = 1;
  float ratio_ = 1;
  float innermost_ = 0;
};

}  // namespace chispa
