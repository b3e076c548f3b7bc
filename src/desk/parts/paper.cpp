// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/parts/paper.h"

#include <cmath>

#include <QFile>

namespace chispa::desk {

QFont paperFont(double mm, bool bold) {
  QFont font;
  font.setPixelSize(static_cast<int>(std::lround(mm * 10)));
  font.setBold(bold);
  return font;
}

bool writePdf(const QString& path, const QString& title, QPageSize::PageSizeId size,
              QPageLayout::Orientation orientation, const std::function<void(QPainter&, QPdfWriter&)>& draw) {
  QFile file(path);
  if (!file.open(QIODevice::WriteOnly)) return false;
  QPdfWriter pdf(&file);
  pdf.setTitle(title);
  // A dot is a tenth of a millimetre.
  constexpr int kDotsPerInch = 254;
  pdf.setResolution(kDotsPerInch);
  pdf.setPageMargins({});
  pdf.setPageSize(QPageSize(size));
  pdf.setPageOrientation(orientation);
  QPainter painter;
  if (!painter.begin(&pdf)) return false;
  draw(painter, pdf);
  return painter.end() && file.flush();
}

}  // namespace chispa::desk
