// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/plan/underlaypictures.h"

#include <QImageReader>
#include <QPainter>
#include <QSvgRenderer>

#include "desk/parts/format.h"
#include "desk/parts/theme.h"
#include "desk/plan/planview.h"

namespace chispa::desk {

bool isSeenFrom(UnderlayFace face, const PlanView& view) {
  switch (face) {
    case UnderlayFace::Floor:
      return view.side() == PlanSide::Top;
    case UnderlayFace::Front:
      return view.side() == PlanSide::Front;
    case UnderlayFace::Side:
      return view.side() == PlanSide::Side;
  }
  return false;
}

QString UnderlayPictures::pathOf(const Document& document, const std::string& file) {
  const std::filesystem::path path = file;
  return text((path.is_absolute() ? path : document.path().parent_path() / path).string());
}

QImage UnderlayPictures::read(const Document& document, const std::string& file) {
  const QString path = pathOf(document, file);
  if (!path.endsWith(QStringLiteral(".svg"), Qt::CaseInsensitive)) {
    QImageReader reader(path);
    reader.setAutoTransform(true);
    return reader.read().convertToFormat(QImage::Format_ARGB32_Premultiplied);
  }
  QSvgRenderer renderer(path);
  if (!renderer.isValid()) return {};
  constexpr int kWidth = 2000;
  const QSizeF size = renderer.defaultSize();
  QImage image(
      kWidth,
      std::clamp(static_cast<int>(kWidth * size.height() / std::max(1.0, size.width())), 1, 4 * kWidth),
      QImage::Format_ARGB32_Premultiplied);
  image.fill(Qt::transparent);
  QPainter painter(&image);
  renderer.render(&painter);
  return image;
}

void UnderlayPictures::paint(QPainter& painter, const PlanView& view) {
  for (const auto& underlay : view.session().show().underlays) {
    if (!underlay->isVisible || !isSeenFrom(underlay->face, view)) continue;
    const QString key = pathOf(document_, underlay->file);
    auto found = pictures_.find(key);
    if (found == pictures_.end()) found = pictures_.emplace(key, read(document_, underlay->file)).first;
    const QImage& image = found->second;
    const QSizeF size = image.isNull() ? QSizeF(200, 120) : QSizeF(image.size());
    painter.save();
    painter.translate(view.toScreen(underlay->position_m));
    painter.rotate(-underlay->turn_deg);
    const double scale = underlay->scale_m * view.scale();
    painter.scale(scale, scale);
    const QRectF place(-size.width() / 2, -size.height() / 2, size.width(), size.height());
    painter.setOpacity(underlay->opacity);
    painter.setRenderHint(QPainter::SmoothPixmapTransform);
    painter.drawImage(place, image);
    painter.setOpacity(1);
    const auto* chosen = std::get_if<UnderlayId>(&view.session().selection.now());
    if (image.isNull() || (chosen && *chosen == underlay->id)) {
      painter.setPen(QPen(image.isNull() ? theme().wrong : theme().ember, 0));
      painter.setBrush(Qt::NoBrush);
      painter.drawRect(place);
    }
    painter.restore();
    if (image.isNull()) {
      painter.setPen(theme().wrong);
      painter.drawText(view.toScreen(underlay->position_m),
                       PlanView::tr("%1 is not there or is no picture").arg(text(underlay->file)));
    }
  }
}

}  // namespace chispa::desk
