// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/score/palette/striplooks.h"

#include <QPainter>

#include "core/preview/striplook.h"
#include "desk/parts/format.h"
#include "desk/parts/named.h"
#include "desk/parts/theme.h"

namespace chispa::desk {
namespace {

constexpr int kBar_px = 14;

}  // namespace

StripLooks::StripLooks(PaletteAccess palette, QWidget* parent) : QWidget(parent), palette_(palette) {
  named(this, "stripLooks", tr("On your strips"),
        tr("What each strip type of the show makes of these colours: with its chips, its white point and its "
           "finest step"));
  setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
}

int StripLooks::rowHeight() const {
  return fontMetrics().height() + kBar_px + 8;
}

QSize StripLooks::sizeHint() const {
  return {200, rowHeight() *
                   static_cast<int>(std::max<std::size_t>(1, palette_.session().show().stripTypes.size()))};
}

void StripLooks::refresh() {
  updateGeometry();
  update();
}

void StripLooks::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  const Palette palette = palette_.get();
  int top = 0;
  for (const auto& strip : palette_.session().show().stripTypes) {
    painter.setPen(theme().quiet);
    const QString words = tr("%1 · %2").arg(text(strip->name), text(strip->order));
    painter.drawText(QRect(0, top, width(), fontMetrics().height()), Qt::AlignVCenter,
                     fontMetrics().elidedText(words, Qt::ElideRight, width()));
    const ChipMix mix = strip->mix();
    QImage row(std::max(1, width()), 1, QImage::Format_RGB32);
    for (int x = 0; x < row.width(); ++x) {
      const Srgb8 c = toSrgb8(shownBy(*strip, mix, colourAt(palette, (x + 0.5) / row.width())));
      row.setPixel(x, 0, qRgb(c.r, c.g, c.b));
    }
    painter.drawImage(QRect(0, top + fontMetrics().height() + 2, width(), kBar_px), row);
    top += rowHeight();
  }
}

}  // namespace chispa::desk
