// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QHeaderView>
#include <QLabel>
#include <QTreeWidget>

#include "desk/parts/theme.h"

namespace chispa::desk {

/// Words above a part of a dialog.
inline QLabel* quietHeading(const QString& words) {
  auto* label = new QLabel(words);
  label->setObjectName(QStringLiteral("quiet"));
  return label;
}

/// A list with columns: the first takes the room that the others leave.
inline void asTable(QTreeWidget* list, const QStringList& titles) {
  list->setHeaderLabels(titles);
  list->setRootIsDecorated(false);
  list->header()->setStretchLastSection(false);
  list->header()->setSectionResizeMode(QHeaderView::ResizeToContents);
  list->header()->setSectionResizeMode(0, QHeaderView::Stretch);
}

/// Says how it stands in a dialog's last line: fine, or wrong.
inline void sayState(QLabel* state, const QString& words, bool isFine) {
  state->setText(
      QStringLiteral("<span style=\"color:%1\">%2</span>")
          .arg((isFine ? theme().fine : theme().wrong).name(), words.toHtmlEscaped().replace('\n', ' ')));
}

}  // namespace chispa::desk
