// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QPushButton>
#include <QTreeWidget>
#include <QVBoxLayout>

#include "desk/parts/named.h"
#include "desk/parts/theme.h"

namespace chispa::desk {

/// A button with its words and what it does.
inline QPushButton* namedButton(const char* name, const QString& words, const QString& tip) {
  return named(new QPushButton(words), name, words, tip);
}

/// A bar below its title, with words for what it shows to the right of it.
inline void addBar(QVBoxLayout* rows, const QString& title, QLabel* words, QWidget* bar, const char* name,
                   const QString& tip) {
  auto* line = new QHBoxLayout;
  line->addWidget(new QLabel(title));
  line->addStretch();
  words->setFont(numberFont());
  line->addWidget(words);
  rows->addLayout(line);
  rows->addWidget(named(bar, name, title, tip));
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
