// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/parts/icon.h"

#include <QFile>
#include <QPainter>
#include <QPixmap>
#include <QSvgRenderer>

#include "desk/parts/theme.h"

namespace chispa::desk {
namespace {

QPixmap drawn(const QByteArray& svg, const QColor& colour) {
  QByteArray coloured = svg;
  coloured.replace("currentColor", colour.name().toUtf8());
  QSvgRenderer renderer(coloured);
  // Enough for 20 px at three times the scale.
  constexpr int kSize = 64;
  QPixmap pixmap(kSize, kSize);
  pixmap.fill(Qt::transparent);
  QPainter painter(&pixmap);
  renderer.render(&painter);
  return pixmap;
}

}  // namespace

QIcon icon(const QString& name) {
  QFile file(QStringLiteral(":/parts/icons/%1.svg").arg(name));
  if (!file.open(QIODevice::ReadOnly)) return {};
  const QByteArray svg = file.readAll();
  QIcon made(drawn(svg, theme().text));
  made.addPixmap(drawn(svg, theme().ember), QIcon::Normal, QIcon::On);
  made.addPixmap(drawn(svg, theme().quiet), QIcon::Disabled);
  return made;
}

}  // namespace chispa::desk
