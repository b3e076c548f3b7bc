// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/parts/namefield.h"

#include <QKeyEvent>

namespace chispa::desk {

NameField::NameField(const QString& name, QRect over, QWidget* parent,
                     std::function<void(const QString&)> take)
    : QLineEdit(name, parent), before_(name), take_(std::move(take)) {
  setAccessibleName(tr("New name"));
  setToolTip(tr("Enter takes the name, Esc keeps the old one"));
  setGeometry(over);
  selectAll();
  show();
  setFocus();
}

void NameField::keyPressEvent(QKeyEvent* event) {
  const bool takes = event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter;
  if (!takes && event->key() != Qt::Key_Escape) return QLineEdit::keyPressEvent(event);
  event->accept();
  const QString name = text().trimmed();
  const auto take = take_;
  // Losing the focus ends it.
  parentWidget()->setFocus();
  if (takes && !name.isEmpty() && name != before_) take(name);
}

void NameField::focusOutEvent(QFocusEvent* event) {
  QLineEdit::focusOutEvent(event);
  // Its own menu takes the focus for a while only.
  if (event->reason() != Qt::PopupFocusReason) deleteLater();
}

}  // namespace chispa::desk
