// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QPainterPath>
#include <QRectF>

#include "core/show/curve.h"

namespace chispa::desk {

/// Where things of a curve lie in a box: its time to the right, its value upward.
struct CurveBox {
  QRectF box;

  QPointF spotOf(CurvePoint point) const {
    return {box.left() + point.at * box.width(), box.bottom() - point.value * box.height()};
  }
  /// Outside 0–1 outside the box.
  CurvePoint pointFrom(QPointF at) const;
  /// The first point within `reach_px` of `at`; -1 if there is none.
  int pointAt(const Curve& curve, QPointF at, double reach_px) const;
  /// The line through all points, level on both sides; empty for a curve without points.
  QPainterPath pathOf(const Curve& curve) const;
};

}  // namespace chispa::desk
