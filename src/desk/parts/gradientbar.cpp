// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/parts/gradientbar.h"

#include <QPainter>

namespace chispa::desk {

QImage gradientImage(const Palette& palette, int width, int height) {
  QImage image(width, height, QImage::Format_RGB32);
  for (int x = 0; x < width; ++x) {
    const Srgb8 c = toSrgb8(colourAt(palette, (x + 0.5) / width));
    for (int y = 0; y < height; ++y) image.setPixel(x, y, qRgb(c.r, c.g, c.b));
  }
  return image;
}

GradientBar::GradientBar(std::function<Palette()> palette, QWidget* parent)
    : QWidget(parent), palette_(std::move(palette)) {
  setFixedHeight(28);
  setAccessibleName(tr("Palette"));
  setToolTip(tr("The palette from its start to its end"));
}

void GradientBar::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  painter.drawImage(rect(), gradientImage(palette_(), std::max(1, width()), 1));
}

}  // namespace chispa::desk
