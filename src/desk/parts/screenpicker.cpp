// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/parts/screenpicker.h"

#include <QGuiApplication>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QScreen>

#include "desk/parts/theme.h"

namespace chispa::desk {
namespace {

constexpr int kLeast_px = 4;

}  // namespace

ScreenPicker::ScreenPicker(int screen, const QString& words, Picked picked)
    : screen_(screen < QGuiApplication::screens().size() ? screen : 0),
      words_(words),
      picked_(std::move(picked)) {
  setObjectName(QStringLiteral("screenPicker"));
  setAccessibleName(tr("Choose a part of the screen"));
  setWindowFlags(Qt::FramelessWindowHint | Qt::WindowStaysOnTopHint);
  setAttribute(Qt::WA_DeleteOnClose);
  setCursor(Qt::CrossCursor);
  QScreen* on = QGuiApplication::screens().at(screen_);
  behind_ = on->grabWindow(0);
  setGeometry(on->geometry());
}

void ScreenPicker::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  painter.drawPixmap(rect(), behind_);
  QRegion rest(rect());
  rest -= part_;
  painter.setClipRegion(rest);
  painter.fillRect(rect(), QColor(0, 0, 0, 150));
  painter.setClipping(false);
  painter.setPen(QPen(theme().ember, 2));
  if (!part_.isEmpty()) painter.drawRect(part_);
  painter.setPen(Qt::white);
  const QString words = part_.isEmpty() ? words_ + QLatin1Char(' ') + tr("Esc leaves everything as it is.")
                                        : tr("%1 × %2 dots").arg(part_.width()).arg(part_.height());
  painter.drawText(part_.isEmpty() ? rect() : part_.adjusted(8, 6, 0, 0),
                   part_.isEmpty() ? Qt::AlignCenter : Qt::AlignLeft | Qt::AlignTop, words);
}

void ScreenPicker::mousePressEvent(QMouseEvent* event) {
  pressed_ = event->pos();
  part_ = {};
  update();
}

void ScreenPicker::mouseMoveEvent(QMouseEvent* event) {
  part_ = QRect(pressed_, event->pos()).normalized() & rect();
  update();
}

void ScreenPicker::mouseReleaseEvent(QMouseEvent*) {
  // A click alone is no choice yet.
  if (part_.width() < kLeast_px || part_.height() < kLeast_px) return;
  const double dots = behind_.devicePixelRatio();
  const QRect seen(part_.topLeft() * dots, part_.size() * dots);
  picked_({screen_, part_.x(), part_.y(), part_.width(), part_.height()},
          behind_.isNull() ? QImage() : behind_.copy(seen).toImage());
  close();
}

void ScreenPicker::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_Escape) close();
}

}  // namespace chispa::desk
