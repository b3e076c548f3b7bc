// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/score/curvehand.h"

#include <QCoreApplication>
#include <QPainter>
#include <QPainterPath>

#include "core/edit/curveedits.h"
#include "core/edit/scoreedits.h"
#include "core/effect/effect.h"
#include "desk/parts/curvebox.h"
#include "desk/parts/format.h"
#include "desk/parts/language.h"
#include "desk/parts/theme.h"

namespace chispa::desk {
namespace {

constexpr double kReach_px = 7;
constexpr double kMargin_px = 5;

QString words(const char* source) {
  return QCoreApplication::translate("CurveHand", source);
}

/// The part of a clip's box in which its curves lie.
CurveBox fieldOf(QRectF box) {
  return {box.adjusted(0, kMargin_px, 0, -kMargin_px)};
}

/// "Tail 0.02–1", as the curve's name.
QString titleOf(const Clip& clip, const std::string& key, const Motion& motion) {
  QString name = key == kStrengthKey       ? words("Strength")
                 : key == kPalettePlaceKey ? words("Palette's place")
                                           : text(key);
  if (const Effect* effect = findEffect(clip.effect))
    if (const auto index = paramIndex(*effect, key)) name = said(effect->params[*index].label);
  return QStringLiteral("%1 %2–%3").arg(name).arg(motion.low, 0, 'g', 3).arg(motion.high, 0, 'g', 3);
}

}  // namespace

bool CurveHand::hasCurves(const Clip& clip) {
  return std::any_of(clip.motions.begin(), clip.motions.end(),
                     [](const auto& one) { return one.second.driver == Driver::Curve; });
}

QPointF CurveHand::spotOf(QRectF box, CurvePoint point) {
  return fieldOf(box).spotOf(point);
}

void CurveHand::paint(QPainter& painter, const Clip& clip, QRectF box) const {
  painter.save();
  painter.setClipRect(box.adjusted(-4, -4, 4, 4));
  // Curves are told apart by their dashes, not by colour.
  static const std::array<Qt::PenStyle, 3> dashes = {Qt::SolidLine, Qt::DashLine, Qt::DotLine};
  std::size_t which = 0;
  double titleTop = box.top() + 2;
  for (const auto& [key, motion] : clip.motions) {
    if (motion.driver != Driver::Curve || motion.points.empty()) continue;
    const QPainterPath path = fieldOf(box).pathOf(motion.points);
    const Qt::PenStyle dash = dashes[which++ % dashes.size()];
    painter.setBrush(Qt::NoBrush);
    // A dark rim keeps the line readable on any light.
    painter.setPen(QPen(QColor(0, 0, 0, 190), 4));
    painter.drawPath(path);
    painter.setPen(QPen(QColor(255, 255, 255), 1.6, dash));
    painter.drawPath(path);
    for (std::size_t i = 0; i < motion.points.size(); ++i) {
      const bool isHeld = held_ && held_->clip == clip.id && held_->key == key && held_->point == i;
      painter.setPen(QPen(QColor(0, 0, 0), 1));
      painter.setBrush(isHeld ? theme().ember : QColor(255, 255, 255));
      painter.drawEllipse(spotOf(box, motion.points[i]), 4, 4);
    }
    const QString title = titleOf(clip, key, motion);
    painter.setFont(numberFont(0.85));
    const QRectF ground(box.left() + 8, titleTop, painter.fontMetrics().horizontalAdvance(title) + 8,
                        painter.fontMetrics().height());
    if (ground.right() < box.right()) {
      painter.fillRect(ground, QColor(0, 0, 0, 170));
      painter.setPen(QColor(255, 255, 255));
      painter.drawText(ground, Qt::AlignCenter, title);
    }
    titleTop += ground.height() + 1;
  }
  painter.restore();
}

std::optional<CurveHand::Held> CurveHand::pointAt(const Clip& clip, QRectF box, QPointF at) {
  for (const auto& [key, motion] : clip.motions) {
    if (motion.driver != Driver::Curve) continue;
    if (const int point = fieldOf(box).pointAt(motion.points, at, kReach_px); point >= 0)
      return Held{clip.id, key, static_cast<std::size_t>(point)};
  }
  return std::nullopt;
}

bool CurveHand::press(const Clip& clip, QRectF box, QPointF at) {
  held_ = pointAt(clip, box, at);
  return held_.has_value();
}

bool CurveHand::add(const Clip& clip, QRectF box, QPointF at) {
  const CurvePoint wanted = fieldOf(box).pointFrom(at);
  for (const auto& [key, motion] : clip.motions) {
    if (motion.driver != Driver::Curve || motion.points.empty()) continue;
    if (std::abs(spotOf(box, {wanted.at, curveAt(motion.points, wanted.at)}).y() - at.y()) > kReach_px)
      continue;
    change(clip.id, key, words("add a point to a curve"),
           [wanted](Curve& curve) { addPoint(curve, wanted); });
    return true;
  }
  return false;
}

bool CurveHand::remove(const Clip& clip, QRectF box, QPointF at) {
  const auto found = pointAt(clip, box, at);
  if (!found) return false;
  change(clip.id, found->key, words("delete a point of a curve"), [i = found->point](Curve& curve) {
    if (curve.size() > 1) curve.erase(curve.begin() + static_cast<std::ptrdiff_t>(i));
  });
  return true;
}

void CurveHand::drag(QRectF box, QPointF to) {
  if (!held_) return;
  change(
      held_->clip, held_->key, words("move a point of a curve"),
      [this, box, to](Curve& curve) {
        if (held_->point < curve.size()) movePoint(curve, held_->point, fieldOf(box).pointFrom(to));
      },
      QStringLiteral("curve-drag"));
}

void CurveHand::release() {
  held_.reset();
  session_.document.seal();
}

void CurveHand::change(ClipId clip, const std::string& key, const QString& name,
                       const std::function<void(std::vector<CurvePoint>&)>& edit, const QString& mergeKey) {
  const Score* score = session_.stage.score();
  if (!score) return;
  session_.edit(
      name,
      [&, id = score->id](Show& show) {
        changeClip(show, id, clip, [&](Clip& c) {
          if (const auto motion = c.motions.find(key); motion != c.motions.end()) edit(motion->second.points);
        });
      },
      mergeKey);
}

}  // namespace chispa::desk
