// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <optional>

#include <QPointF>

class QEvent;
class QWheelEvent;

namespace chispa::desk {

// One rule for wheels and touchpads in every view: a turn of the wheel, or two fingers, scrolls; with Shift
// sideways; with Ctrl, or by a pinch, the view comes nearer at the pointer.

/// What a turn of the wheel asks a view to do.
struct WheelTurn {
  /// How far the view moves over what it shows, to the right and down, in pixels.
  QPointF scroll_px;
  /// How many times larger things become; 1 where the turn scrolls.
  double zoom = 1;
};
WheelTurn turnOf(const QWheelEvent& event);

/// A pinch of two fingers on a touchpad.
struct Pinch {
  QPointF at;
  /// How many times larger things become.
  double zoom = 1;
};
/// Nothing for every other event.
std::optional<Pinch> pinchOf(const QEvent& event);

}  // namespace chispa::desk
