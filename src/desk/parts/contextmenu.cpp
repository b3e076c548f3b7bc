// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/parts/contextmenu.h"

#include <QAbstractItemView>
#include <QAction>
#include <QMenu>
#include <QWidget>

namespace chispa::desk {

void showActions(QWidget& from, QPoint global, const QStringList& names) {
  QMenu menu(&from);
  menu.setObjectName(QStringLiteral("contextMenu"));
  for (const QString& name : names) {
    if (name.isEmpty())
      menu.addSeparator();
    else if (auto* action = from.window()->findChild<QAction*>(name))
      menu.addAction(action);
  }
  menu.exec(global);
}

void offerActions(QAbstractItemView& list, const QStringList& names) {
  list.setContextMenuPolicy(Qt::CustomContextMenu);
  QObject::connect(&list, &QWidget::customContextMenuRequested, &list, [&list, names](QPoint at) {
    if (list.indexAt(at).isValid()) showActions(list, list.viewport()->mapToGlobal(at), names);
  });
}

}  // namespace chispa::desk
