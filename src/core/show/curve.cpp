// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/show/curve.h"

#include <algorithm>

namespace chispa {

double curveAt(const Curve& curve, double at) noexcept {
  if (curve.empty()) return 0;
  const auto next = std::upper_bound(curve.begin(), curve.end(), at,
                                     [](double u, const CurvePoint& point) { return u < point.at; });
  if (next == curve.begin()) return curve.front().value;
  if (next == curve.end()) return curve.back().value;
  const CurvePoint& from = *std::prev(next);
  const double gap = next->at - from.at;
  return gap > 0 ? from.value + (next->value - from.value) * (at - from.at) / gap : next->value;
}

}  // namespace chispa
