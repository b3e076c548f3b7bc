// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/parts/curvebox.h"

#include <algorithm>
#include <cmath>

namespace chispa::desk {

CurvePoint CurveBox::pointFrom(QPointF at) const {
  return {(at.x() - box.left()) / std::max(1.0, box.width()),
          (box.bottom() - at.y()) / std::max(1.0, box.height())};
}

int CurveBox::pointAt(const Curve& curve, QPointF at, double reach_px) const {
  const auto found = std::find_if(curve.begin(), curve.end(), [&](const CurvePoint& point) {
    const QPointF off = spotOf(point) - at;
    return std::hypot(off.x(), off.y()) < reach_px;
  });
  return found == curve.end() ? -1 : static_cast<int>(found - curve.begin());
}

QPainterPath CurveBox::pathOf(const Curve& curve) const {
  if (curve.empty()) return {};
  QPainterPath path(spotOf({0, curve.front().value}));
  for (const CurvePoint& point : curve) path.lineTo(spotOf(point));
  path.lineTo(spotOf({1, curve.back().value}));
  return path;
}

}  // namespace chispa::desk
