// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/plan/underlaypictures.h"

#include <QImageReader>
#include <QPainter>
#include <QSvgRenderer>

#include "core/base/relativepath.h"
#include "desk/parts/format.h"
#include "desk/parts/theme.h"
#include "desk/plan/planview.h"
#include "desk/session/background.h"
#include "desk/session/pools.h"

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

UnderlayPictures::UnderlayPictures(const Session& session) : session_(session) {
  // Another show has other pictures; and what was left out may be read now.
  const auto forget = [this] { pictures_.clear(); };
  connect(&session_.document, &Document::opened, this, forget);
  connect(&session_.stage.outsideFiles(), &OutsideFiles::allowed, this, &UnderlayPictures::arrived);
}

QString UnderlayPictures::pathOf(const Document& document, const std::string& file) {
  return text(resolvedBeside(document.path(), file).string());
}

QImage UnderlayPictures::read(const QString& path) {
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

const QImage* UnderlayPictures::pictureOf(const QString& path) {
  const auto [found, isNew] = pictures_.try_emplace(path);
  if (isNew)
    runThen(
        pools::files(), this, [path] { return read(path); },
        [this, path](const QImage& picture) {
          keep(path, picture);
          emit arrived();
        });
  return found->second ? &*found->second : nullptr;
}

QString UnderlayPictures::troubleOf(const Underlay& underlay) const {
  if (!session_.stage.outsideFiles().mayRead(underlay.file)) return OutsideFiles::trouble(underlay.file);
  return tr("%1 is not there or is no picture").arg(text(underlay.file));
}

void UnderlayPictures::paint(QPainter& painter, const PlanView& view) {
  static const QImage kNone;
  for (const auto& underlay : view.session().show().underlays) {
    if (!underlay->isVisible || !isSeenFrom(underlay->face, view)) continue;
    const QImage* known = session_.stage.outsideFiles().mayRead(underlay->file)
                              ? pictureOf(pathOf(session_.document, underlay->file))
                              : &kNone;
    if (!known) continue;
    const QImage& image = *known;
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
      painter.drawText(view.toScreen(underlay->position_m), troubleOf(*underlay));
    }
  }
}

}  // namespace chispa::desk
