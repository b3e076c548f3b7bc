// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/parts/columngrip.h"

#include <algorithm>

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QSettings>
#include <QTimer>

#include "desk/parts/theme.h"

namespace chispa::desk {
namespace {

constexpr int kGrip_px = 5;
constexpr int kStep_px = 8;

}  // namespace

ColumnGrip::ColumnGrip(QWidget* column, const QString& key)
    : QWidget(column),
      column_(column),
      key_(QStringLiteral("columnWidths/") + key),
      least_(column->minimumWidth()) {
  setObjectName(QStringLiteral("columnGrip"));
  setAccessibleName(tr("Width of the column"));
  setToolTip(tr("Drag to make the column wider; a double click sets it back. Keys: ← → Home"));
  setCursor(Qt::SplitHCursor);
  setFocusPolicy(Qt::TabFocus);
  column->installEventFilter(this);
}

bool ColumnGrip::eventFilter(QObject* watched, QEvent* event) {
  if (watched == column_ && event->type() == QEvent::Resize) {
    setGeometry(column_->width() - kGrip_px, 0, kGrip_px, column_->height());
    raise();
  }
  // The page knows its own room once it is laid out.
  if (watched == column_ && event->type() == QEvent::Show) QTimer::singleShot(0, this, &ColumnGrip::restore);
  return QWidget::eventFilter(watched, event);
}

void ColumnGrip::restore() {
  const int kept = QSettings().value(key_, 0).toInt();
  if (kept > 0 && kept != column_->width()) setColumnWidth(kept);
}

void ColumnGrip::keep() const {
  QSettings().setValue(key_, column_->width());
}

void ColumnGrip::setColumnWidth(int width) {
  const QWidget* page = column_->parentWidget();
  const int spare = page ? std::max(0, page->width() - page->minimumSizeHint().width()) : 0;
  column_->setFixedWidth(std::clamp(width, least_, std::max(least_, column_->width() + spare)));
}

void ColumnGrip::paintEvent(QPaintEvent*) {
  if (!underMouse() && !hasFocus() && !taken_) return;
  QPainter painter(this);
  painter.fillRect(QRect(width() - 2, 0, 2, height()), hasFocus() ? theme().ember : theme().line);
}

void ColumnGrip::enterEvent(QEnterEvent*) {
  update();
}
void ColumnGrip::leaveEvent(QEvent*) {
  update();
}

void ColumnGrip::mousePressEvent(QMouseEvent* event) {
  if (event->button() != Qt::LeftButton) return;
  // Esc calls the drag off, as any other.
  grabKeyboard();
  taken_ = {event->globalPosition().toPoint().x(), column_->width()};
}

void ColumnGrip::mouseMoveEvent(QMouseEvent* event) {
  if (taken_) setColumnWidth(taken_->second + event->globalPosition().toPoint().x() - taken_->first);
}

void ColumnGrip::mouseReleaseEvent(QMouseEvent*) {
  if (!taken_) return;
  letGo();
  keep();
}

void ColumnGrip::letGo() {
  taken_.reset();
  releaseKeyboard();
}

void ColumnGrip::mouseDoubleClickEvent(QMouseEvent*) {
  setColumnWidth(least_);
  keep();
}

void ColumnGrip::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_Left || event->key() == Qt::Key_Right)
    setColumnWidth(column_->width() + (event->key() == Qt::Key_Left ? -kStep_px : kStep_px));
  else if (event->key() == Qt::Key_Home)
    setColumnWidth(least_);
  else if (event->key() == Qt::Key_Escape && taken_) {
    setColumnWidth(taken_->second);
    letGo();
  } else
    return QWidget::keyPressEvent(event);
  keep();
}

}  // namespace chispa::desk
