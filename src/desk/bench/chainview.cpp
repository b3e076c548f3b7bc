// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/bench/chainview.h"

#include <QPainter>
#include <cmath>

#include "desk/parts/theme.h"

namespace chispa::desk {

ChainView::ChainView(QWidget* parent) : QWidget(parent) {
  setMinimumHeight(90);
  setAccessibleName(tr("The port's chain"));
  setToolTip(tr("Every pixel that hangs on the port, in data order"));
}

void ChainView::showChain(std::vector<bool> skipped, int lit) {
  skipped_ = std::move(skipped);
  lit_ = lit;
  update();
}

void ChainView::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  painter.setRenderHint(QPainter::Antialiasing);
  painter.setPen(Qt::NoPen);
  painter.setBrush(theme().night);
  painter.drawRoundedRect(rect(), 4, 4);
  if (skipped_.empty()) {
    painter.setPen(QColor(0x9a, 0x96, 0x8e));
    painter.drawText(rect(), Qt::AlignCenter, tr("Nothing hangs on this port."));
    return;
  }
  // The largest dot with which the whole chain fits.
  const double area = (width() - 24.0) * (height() - 24.0) / static_cast<double>(skipped_.size());
  const double cell = std::clamp(std::floor(std::sqrt(area)), 4.0, 22.0);
  const int perRow = std::max(1, static_cast<int>((width() - 24) / cell));
  for (int i = 0; i < std::ssize(skipped_); ++i) {
    const QRectF dot(12 + i % perRow * cell, 12 + i / perRow * cell, cell - 2, cell - 2);
    painter.setPen(skipped_[static_cast<std::size_t>(i)] ? QPen(QColor(0x80, 0x7c, 0x74), 1) : QPen(Qt::NoPen));
    painter.setBrush(i == lit_ ? QColor(0xff, 0xf4, 0xe0) : skipped_[static_cast<std::size_t>(i)] ? QColor(Qt::transparent) : QColor(0x2e, 0x2e, 0x33));
    painter.drawRoundedRect(dot, cell / 5, cell / 5);
  }
}

}  // namespace chispa::desk
