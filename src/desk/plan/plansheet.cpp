// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/plan/plansheet.h"

#include <algorithm>
#include <cmath>
#include <functional>
#include <vector>

#include <QFile>
#include <QPainter>
#include <QSvgGenerator>

#include "core/check/cutlist.h"
#include "core/show/strip.h"
#include "desk/parts/cuttext.h"
#include "desk/parts/format.h"
#include "desk/parts/paper.h"

namespace chispa::desk {
namespace {

/// The sheet is laid out in millimetres of A3.
constexpr QSizeF kSheet_mm(420, 297);
constexpr double kMargin_mm = 12;
constexpr double kCutList_mm = 96;

const QColor kDataIn(0x1d, 0x7a, 0x4d);

QString sideName(const PlanProjection& projection) {
  switch (projection.side()) {
    case PlanSide::Front:
      return QObject::tr("from the front");
    case PlanSide::Side:
      return QObject::tr("from the side");
    case PlanSide::Free:
      return QObject::tr("from an angle");
    default:
      return QObject::tr("from above");
  }
}

/// Draws one sheet; all lengths are tenths of millimetres.
class Sheet {
 public:
  Sheet(QPainter& painter, const Show& show, const PlanProjection& projection)
      : painter_(painter), show_(show), projection_(projection) {}

  void paint() {
    const QRectF page(0, 0, kSheet_mm.width() * 10, kSheet_mm.height() * 10);
    painter_.fillRect(page, Qt::white);
    const QRectF inner = page.adjusted(kMargin_mm * 10, kMargin_mm * 10, -kMargin_mm * 10, -kMargin_mm * 10);
    painter_.setPen(QPen(kInk, 3));
    painter_.setBrush(Qt::NoBrush);
    painter_.drawRect(inner);
    const QRectF list(inner.right() - kCutList_mm * 10, inner.top(), kCutList_mm * 10, inner.height());
    painter_.drawLine(list.topLeft(), list.bottomLeft());
    paintCutList(list.adjusted(40, 40, -40, -40));
    paintPlan(inner.adjusted(60, 60, -kCutList_mm * 10 - 60, -60));
  }

 private:
  void paintPlan(const QRectF& area) {
    QRectF extent;
    for (const auto& fixture : show_.fixtures)
      for (const Vec3& p : positions(*fixture))
        extent |= QRectF(projection_.flat(p) - QPointF(0.02, 0.02), QSizeF(0.04, 0.04));
    if (extent.isNull()) return;
    // A scale that a rule can measure: 1 : 1, 2, 5, 10, 20 …
    const double needed = std::max(extent.width() / area.width(), extent.height() / area.height()) * 10'000;
    const double power = std::pow(10, std::floor(std::log10(std::max(1.0, needed))));
    denominator_ = power * (needed / power <= 1     ? 1
                            : needed / power <= 2   ? 2
                            : needed / power <= 2.5 ? 2.5
                            : needed / power <= 4   ? 4
                            : needed / power <= 5   ? 5
                                                    : 10);
    const QPointF middle = extent.center();
    toSheet_ = [=, this](Vec3 p) {
      const QPointF q = projection_.flat(p) - middle;
      return area.center() + QPointF(q.x(), -q.y()) * (10'000 / denominator_);
    };
    for (const auto& fixture : show_.fixtures) paintDots(*fixture);
    for (const auto& fixture : show_.fixtures) paintName(*fixture);
    for (const auto& fixture : show_.fixtures) paintNumbers(*fixture);
  }

  double pitchOf(const Fixture& fixture) const {
    return std::max(1.0, pitch_m(fixture.segments.front()) * 10'000 / denominator_);
  }

  void paintDots(const Fixture& fixture) {
    const auto points = positions(fixture);
    painter_.setPen(Qt::NoPen);
    painter_.setBrush(kInk);
    const double dot = points.size() > 1 ? std::clamp(pitchOf(fixture) * 0.3, 1.5, 8.0) : 8;
    for (const Vec3& p : points) painter_.drawEllipse(toSheet_(p), dot, dot);
    if (points.size() > 1) paintArrow(toSheet_(points[0]), toSheet_(points[1]));
  }

  /// Words where nothing else is written yet, above the place or else below it.
  bool write(QPointF at, const QString& words, const QFont& font, const QColor& colour,
             std::initializer_list<QPointF> offsets) {
    const QRectF bounds = QRectF(QFontMetricsF(font).boundingRect(words));
    for (const QPointF& offset : offsets) {
      const QRectF box = bounds.translated(at + offset).adjusted(-3, -2, 3, 2);
      if (std::any_of(taken_.begin(), taken_.end(),
                      [&](const QRectF& other) { return other.intersects(box); }))
        continue;
      taken_.push_back(box);
      painter_.setPen(Qt::NoPen);
      painter_.setBrush(QColor(255, 255, 255, 200));
      painter_.drawRect(box);
      painter_.setFont(font);
      painter_.setPen(colour);
      painter_.drawText(at + offset, words);
      return true;
    }
    return false;
  }

  void paintName(const Fixture& fixture) {
    const auto points = positions(fixture);
    if (points.empty()) return;
    QString words = text(fixture.name);
    if (points.size() > 1)
      words += QObject::tr(" · %1 px · %2").arg(points.size()).arg(lengthText(stripLength_m(fixture)));
    write(toSheet_(points.front()), words, paperFont(2.0, true), kInk,
          {{14, -14}, {14, 34}, {14, -40}, {14, 60}, {-160, -14}, {-160, 34}});
  }

  void paintArrow(QPointF first, QPointF second) {
    QPointF way = second - first;
    const double length = std::hypot(way.x(), way.y());
    way = length > 0.01 ? way / length : QPointF(1, 0);
    const QPointF beside(-way.y(), way.x());
    const QPointF tip = first - way * 10;
    painter_.setPen(Qt::NoPen);
    painter_.setBrush(kDataIn);
    painter_.drawPolygon(QPolygonF{tip, tip - way * 24 + beside * 12, tip - way * 24 - beside * 12});
  }

  void paintNumbers(const Fixture& fixture) {
    const auto points = positions(fixture);
    const double pitch = pitchOf(fixture);
    std::size_t every = 10;
    while (static_cast<double>(every) * pitch < 60 && every < points.size()) every *= every % 3 == 1 ? 5 : 2;
    for (std::size_t i = every; i <= points.size(); i += every)
      write(toSheet_(points[i - 1]), QString::number(i), paperFont(1.8), kFaint, {{6, 26}});
  }

  void paintCutList(const QRectF& area) {
    double y = area.top();
    const auto line = [&](const QString& words, double mm, bool bold, const QColor& colour) {
      painter_.setFont(paperFont(mm, bold));
      painter_.setPen(colour);
      const QRectF box(area.left(), y, area.width(), area.bottom() - y);
      const QRectF used = painter_.boundingRect(box, Qt::TextWordWrap | Qt::AlignLeft, words);
      if (used.bottom() <= area.bottom()) painter_.drawText(box, Qt::TextWordWrap | Qt::AlignLeft, words);
      y = used.bottom() + mm * 4;
    };
    line(text(show_.name), 5, true, kInk);
    line(QObject::tr("Seen %1. Arrows mark where data comes in; numbers count pixels from there.")
             .arg(sideName(projection_)),
         2.6, false, kFaint);
    line(QObject::tr("To cut"), 3.6, true, kInk);
    const StripType* last = nullptr;
    for (const CutPiece& piece : cutList(show_)) {
      const StripType* strip = chispa::find(show_.stripTypes, piece.stripType);
      if (strip && strip != last)
        line(QObject::tr("%1 (%2 per metre)").arg(text(strip->name)).arg(strip->pixelsPerMetre), 2.8, true,
             kInk);
      last = strip;
      QString where = text(piece.fixtures.front());
      if (piece.fixtures.size() > 1) where += QObject::tr(" … %1").arg(text(piece.fixtures.back()));
      line(QStringLiteral("%1\n%2").arg(cutText(piece), where), 2.5, false, kInk);
    }
  }

  QPainter& painter_;
  const Show& show_;
  const PlanProjection& projection_;
  double denominator_ = 1;
  std::vector<QRectF> taken_;
  std::function<QPointF(Vec3)> toSheet_;

 public:
  double denominator() const { return denominator_; }
};

}  // namespace

void paintPlanSheet(QPainter& painter, const QSizeF& size, const Show& show,
                    const PlanProjection& projection) {
  painter.save();
  painter.scale(size.width() / (kSheet_mm.width() * 10), size.height() / (kSheet_mm.height() * 10));
  painter.setRenderHint(QPainter::Antialiasing);
  Sheet sheet(painter, show, projection);
  sheet.paint();
  painter.setFont(paperFont(3.2, true));
  painter.setPen(kInk);
  painter.drawText(QPointF((kMargin_mm + 4) * 10, (kSheet_mm.height() - kMargin_mm - 4) * 10),
                   QObject::tr("1 : %1 on A3").arg(sheet.denominator()));
  painter.restore();
}

bool writePlanSheet(const Show& show, const PlanProjection& projection, const QString& path) {
  const QSize size(static_cast<int>(kSheet_mm.width() * 10), static_cast<int>(kSheet_mm.height() * 10));
  if (!path.endsWith(QStringLiteral(".svg"), Qt::CaseInsensitive))
    return writePdf(path, text(show.name), QPageSize::A3, QPageLayout::Landscape,
                    [&](QPainter& painter, QPdfWriter&) { paintPlanSheet(painter, size, show, projection); });
  QFile file(path);
  if (!file.open(QIODevice::WriteOnly)) return false;
  QSvgGenerator svg;
  svg.setOutputDevice(&file);
  svg.setTitle(text(show.name));
  svg.setResolution(254);
  svg.setSize(size);
  svg.setViewBox(QRect({}, size));
  QPainter painter;
  if (!painter.begin(&svg)) return false;
  paintPlanSheet(painter, size, show, projection);
  return painter.end() && file.error() == QFile::NoError;
}

}  // namespace chispa::desk
