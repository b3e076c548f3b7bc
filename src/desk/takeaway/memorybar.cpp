// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/takeaway/memorybar.h"

#include <algorithm>

#include <QPainter>
#include <QPainterPath>

#include "desk/parts/theme.h"

namespace chispa::desk {

MemoryBar::MemoryBar(QWidget* parent) : QWidget(parent) {
  setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
}

void MemoryBar::show(std::vector<Stretch> stretches, double room) {
  stretches_ = std::move(stretches);
  room_ = std::max(1.0, room);
  update();
}

QSize MemoryBar::sizeHint() const {
  return {textWidth(30), fontMetrics().height() + 4};
}

void MemoryBar::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  painter.setRenderHint(QPainter::Antialiasing);
  QPainterPath shape;
  shape.addRoundedRect(QRectF(rect()), 4, 4);
  painter.setClipPath(shape);
  painter.fillRect(rect(), theme().window);
  double used = 0;
  for (const Stretch& stretch : stretches_) used += stretch.size;
  // What is too much is seen as the part behind the line.
  const double whole = std::max(room_, used);
  double x = 0;
  for (const Stretch& stretch : stretches_) {
    const double wide = stretch.size / whole * width();
    painter.fillRect(QRectF(x, 0, wide, height()), stretch.colour);
    x += wide;
  }
  if (used <= room_) return;
  const double end = room_ / whole * width();
  painter.fillRect(QRectF(end, 0, width() - end, height()), QBrush(theme().wrong, Qt::BDiagPattern));
  painter.fillRect(QRectF(end - 1, 0, 2, height()), theme().wrong);
}

}  // namespace chispa::desk
