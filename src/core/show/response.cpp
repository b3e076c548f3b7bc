// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/show/response.h"

#include <algorithm>
#include <cmath>
#include <utility>

namespace chispa {
namespace {

/// The light between two points, as `share` of the way.
double between(double from, double to, double share) {
  return from + (to - from) * share;
}

/// The two ends of the first stretch whose end is `isBehind` what is sought; dark at 0 and full at 1 are ends
/// too.
template <class IsBehind>
std::pair<CurvePoint, CurvePoint> stretchWhere(const std::vector<CurvePoint>& points, IsBehind isBehind) {
  CurvePoint from{0, 0};
  for (const CurvePoint& point : points) {
    if (isBehind(point)) return {from, point};
    from = point;
  }
  return {from, {1, std::max(1.0, from.value)}};
}

}  // namespace

double Response::lightOf(double value) const {
  return value < least ? 0 : bareLightOf(value);
}

double Response::bareLightOf(double value) const {
  const double held = std::clamp(value, 0.0, 1.0);
  if (points.empty()) return exponent == 1 ? held : std::pow(held, exponent);
  const auto [from, to] = stretchWhere(points, [held](const CurvePoint& p) { return p.at >= held; });
  return to.at > from.at ? between(from.value, to.value, (held - from.at) / (to.at - from.at)) : to.value;
}

double Response::bareValueOf(double light) const {
  const double held = std::clamp(light, 0.0, 1.0);
  if (held <= 0) return 0;
  if (points.empty()) return exponent == 1 ? held : std::pow(held, 1 / std::max(0.1, exponent));
  const auto [from, to] = stretchWhere(points, [held](const CurvePoint& p) { return p.value >= held; });
  return to.value > from.value ? between(from.at, to.at, (held - from.value) / (to.value - from.value))
                               : to.at;
}

double Response::darkBelow() const {
  return least > 0 ? bareValueOf(lightOf(least) / 2) : 0;
}

double Response::valueOf(double light) const {
  const double value = bareValueOf(light);
  if (value >= least) return value;
  return value < darkBelow() ? 0 : least;
}

}  // namespace chispa
