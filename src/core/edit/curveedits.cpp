// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edit/curveedits.h"

#include <algorithm>
#include <cmath>
#include <cstdio>
#include <sstream>

namespace chispa {
namespace {

constexpr std::size_t kMaxPoints = 1000;

CurvePoint within(CurvePoint point) {
  return {std::clamp(point.at, 0.0, 1.0), std::clamp(point.value, 0.0, 1.0)};
}

}  // namespace

std::size_t addPoint(Curve& curve, CurvePoint point) {
  point = within(point);
  const auto after = std::upper_bound(curve.begin(), curve.end(), point.at,
                                      [](double at, const CurvePoint& one) { return at < one.at; });
  const auto added = curve.insert(after, point);
  return static_cast<std::size_t>(added - curve.begin());
}

void movePoint(Curve& curve, std::size_t i, CurvePoint to) {
  const double least = i > 0 ? curve[i - 1].at : 0;
  const double most = i + 1 < curve.size() ? curve[i + 1].at : 1;
  to = within(to);
  curve[i] = {std::clamp(to.at, least, most), to.value};
}

std::string curveText(const Curve& curve) {
  std::string text;
  char one[64];
  for (const CurvePoint& point : curve) {
    std::snprintf(one, sizeof one, "%s%.4g:%.4g", text.empty() ? "" : " ", point.at * 100, point.value * 100);
    text += one;
  }
  return text;
}

std::optional<Curve> parseCurve(const std::string& text) {
  Curve curve;
  std::istringstream in(text);
  in.imbue(std::locale::classic());
  for (double at = 0, value = 0; in >> at;) {
    char colon = 0;
    if (!(in >> colon >> value) || colon != ':' || !(at >= 0 && at <= 100) || !(value >= 0 && value <= 100) ||
        curve.size() >= kMaxPoints)
      return std::nullopt;
    addPoint(curve, {at / 100, value / 100});
  }
  if (!in.eof() || curve.empty()) return std::nullopt;
  return curve;
}

}  // namespace chispa
