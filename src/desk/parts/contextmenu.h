// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QPoint>
#include <QStringList>

class QAbstractItemView;
class QWidget;

namespace chispa::desk {

/// Shows a menu of the window's own actions, by their names; an empty name parts two groups. Their keys stand
/// beside them, and what cannot be done now is greyed. UI thread; returns once the menu has closed.
void showActions(QWidget& from, QPoint global, const QStringList& names);

/// A right click on an item of a list, or the menu key, shows these, as above.
void offerActions(QAbstractItemView& list, const QStringList& names);

}  // namespace chispa::desk
