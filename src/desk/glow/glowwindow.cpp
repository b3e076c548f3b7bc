// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/glow/glowwindow.h"

#include <QCloseEvent>
#include <QSettings>
#include <QVBoxLayout>

#include "desk/glow/glowview.h"
#include "desk/parts/icon.h"

namespace chispa::desk {

GlowWindow::GlowWindow(Stage& stage) : view_(new GlowView(stage)) {
  setObjectName(QStringLiteral("glowWindow"));
  setWindowTitle(tr("Glow"));
  setWindowIcon(icon("chispa"));
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->addWidget(view_);
  view_->installEventFilter(this);
  resize(960, 600);
  restoreGeometry(QSettings().value(QStringLiteral("glowWindow")).toByteArray());
}

void GlowWindow::setFullScreen(bool on) {
  on ? showFullScreen() : showNormal();
}

void GlowWindow::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_F || event->key() == Qt::Key_F11) return setFullScreen(!isFullScreen());
  if (event->key() != Qt::Key_Escape) return QWidget::keyPressEvent(event);
  isFullScreen() ? setFullScreen(false) : void(close());
}

bool GlowWindow::eventFilter(QObject* watched, QEvent* event) {
  // Home shows all again; here a double click is for the window.
  if (event->type() != QEvent::MouseButtonDblClick) return QWidget::eventFilter(watched, event);
  setFullScreen(!isFullScreen());
  return true;
}

void GlowWindow::closeEvent(QCloseEvent* event) {
  QSettings().setValue(QStringLiteral("glowWindow"), saveGeometry());
  event->accept();
  emit closed();
}

}  // namespace chispa::desk
