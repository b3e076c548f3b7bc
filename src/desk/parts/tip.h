// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QHelpEvent>
#include <QToolTip>
#include <QWidget>

namespace chispa::desk {

/// Shows what `tipAt(position)` tells of the thing under the pointer, or the words of `on` where there is
/// none. True if the event has asked for that. UI thread.
template <class TipAt>
bool showTip(QEvent& event, QWidget& on, TipAt tipAt) {
  if (event.type() != QEvent::ToolTip) return false;
  const auto& help = static_cast<QHelpEvent&>(event);
  const QString tip = tipAt(help.pos());
  QToolTip::showText(help.globalPos(), tip.isEmpty() ? on.toolTip() : tip, &on);
  return true;
}

}  // namespace chispa::desk
