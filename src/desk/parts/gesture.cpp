// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/parts/gesture.h"

#include <cmath>

#include <QNativeGestureEvent>
#include <QWheelEvent>

namespace chispa::desk {

WheelTurn turnOf(const QWheelEvent& event) {
  if (event.modifiers() & Qt::ControlModifier) {
    constexpr double kPerUnit = 1.0015;
    const QPoint turned = event.angleDelta();
    return {{}, std::pow(kPerUnit, turned.y() != 0 ? turned.y() : turned.x())};
  }
  // A notch is 120 units, and three lines of about 20 pixels.
  constexpr double kPixelsPerUnit = 0.5;
  QPointF by = event.pixelDelta().isNull() ? QPointF(event.angleDelta()) * kPixelsPerUnit
                                           : QPointF(event.pixelDelta());
  if (event.modifiers() & Qt::ShiftModifier && by.x() == 0) by = by.transposed();
  return {-by, 1};
}

std::optional<Pinch> pinchOf(const QEvent& event) {
  if (event.type() != QEvent::NativeGesture) return std::nullopt;
  const auto& gesture = static_cast<const QNativeGestureEvent&>(event);
  if (gesture.gestureType() != Qt::ZoomNativeGesture) return std::nullopt;
  return Pinch{gesture.position(), 1 + gesture.value()};
}

}  // namespace chispa::desk
