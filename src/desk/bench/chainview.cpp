// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/bench/chainview.h"

#include <cmath>

#include <QPainter>

#include "core/colour/rgb.h"
#include "desk/parts/theme.h"

namespace chispa::desk {

QColor ledColour(float r, float g, float b) {
  const Srgb8 shown = toSrgb8({r, g, b});
  const QColor off(0x2e, 0x2e, 0x33);
  return {std::max<int>(off.red(), shown.r), std::max<int>(off.green(), shown.g),
          std::max<int>(off.blue(), shown.b)};
}

ChainView::ChainView(QWidget* parent) : QWidget(parent) {
  setMinimumHeight(90);
  setAccessibleName(tr("LEDs of the chain"));
}

void ChainView::showColours(std::vector<QColor> colours, const QString& nothing) {
  colours_ = std::move(colours);
  nothing_ = nothing;
  update();
}

void ChainView::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  painter.setRenderHint(QPainter::Antialiasing);
  painter.setPen(Qt::NoPen);
  painter.setBrush(theme().night);
  painter.drawRoundedRect(rect(), 4, 4);
  if (colours_.empty()) {
    painter.setPen(QColor(0x9a, 0x96, 0x8e));
    painter.drawText(rect(), Qt::AlignCenter, nothing_);
    return;
  }
  // The largest dot with which the whole chain fits.
  const double area = (width() - 24.0) * (height() - 24.0) / static_cast<double>(colours_.size());
  double cell = std::clamp(std::floor(std::sqrt(area)), 3.0, 22.0);
  const auto rowsAt = [this](double c) {
    return std::ceil(static_cast<double>(colours_.size()) / std::max(1.0, std::floor((width() - 24) / c)));
  };
  while (cell > 3 && rowsAt(cell) * cell > height() - 24) cell -= 0.5;
  const int perRow = std::max(1, static_cast<int>((width() - 24) / cell));
  const double gap = cell > 6 ? 2 : 1;
  for (int i = 0; i < std::ssize(colours_); ++i) {
    const QRectF dot(12 + i % perRow * cell, 12 + i / perRow * cell, cell - gap, cell - gap);
    const QColor& colour = colours_[static_cast<std::size_t>(i)];
    painter.setPen(colour.isValid() ? QPen(Qt::NoPen) : QPen(QColor(0x80, 0x7c, 0x74), 1));
    painter.setBrush(colour.isValid() ? colour : QColor(Qt::transparent));
    painter.drawRoundedRect(dot, cell / 5, cell / 5);
  }
}

}  // namespace chispa::desk
