// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/parts/curvefield.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>

#include "core/edit/curveedits.h"
#include "desk/parts/theme.h"

namespace chispa::desk {
namespace {

constexpr double kReach_px = 8;
constexpr double kMargin_px = 8;
constexpr double kNudge = 0.02;

}  // namespace

CurveField::CurveField(QWidget* parent) : QWidget(parent) {
  setFocusPolicy(Qt::StrongFocus);
  setMinimumHeight(sizeHint().height());
  setToolTip(
      tr("Press to add a point and drag it; a right click removes one.\nKeys: Page Up and Page Down choose a "
         "point, arrows move it, Insert and Delete."));
}

void CurveField::showCurve(const Curve& curve) {
  if (curve == curve_) return;
  curve_ = curve;
  held_ = std::min(held_, static_cast<int>(curve_.size()) - 1);
  update();
}

CurveBox CurveField::field() const {
  return {QRectF(rect()).adjusted(kMargin_px, kMargin_px, -kMargin_px, -kMargin_px)};
}

QPointF CurveField::spotOf(CurvePoint point) const {
  return field().spotOf(point);
}

void CurveField::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  painter.setRenderHint(QPainter::Antialiasing);
  painter.setPen(hasFocus() ? theme().ember : theme().line);
  painter.setBrush(theme().raised);
  painter.drawRoundedRect(QRectF(rect()).adjusted(0.5, 0.5, -0.5, -0.5), 4, 4);
  painter.setPen(theme().line);
  for (const double share : {0.0, 0.5, 1.0}) {
    painter.drawLine(spotOf({0, share}), spotOf({1, share}));
    painter.drawLine(spotOf({share, 0}), spotOf({share, 1}));
  }
  painter.setBrush(Qt::NoBrush);
  painter.setPen(QPen(theme().text, 1.6));
  painter.drawPath(field().pathOf(curve_));
  painter.setPen(theme().window);
  for (std::size_t i = 0; i < curve_.size(); ++i) {
    painter.setBrush(static_cast<int>(i) == held_ ? theme().ember : theme().text);
    painter.drawEllipse(spotOf(curve_[i]), 4.5, 4.5);
  }
}

void CurveField::addAt(CurvePoint point) {
  held_ = static_cast<int>(addPoint(curve_, point));
  update();
  emit changed(curve_);
}

void CurveField::moveTo(CurvePoint point) {
  if (held_ < 0 || held_ >= static_cast<int>(curve_.size())) return;
  movePoint(curve_, static_cast<std::size_t>(held_), point);
  update();
  emit changed(curve_);
}

void CurveField::removeHeld() {
  // A curve has one point at least.
  if (held_ < 0 || curve_.size() < 2) return;
  curve_.erase(curve_.begin() + held_);
  held_ = std::min(held_, static_cast<int>(curve_.size()) - 1);
  update();
  emit changed(curve_);
  emit finished();
}

void CurveField::mousePressEvent(QMouseEvent* event) {
  const int hit = field().pointAt(curve_, event->position(), kReach_px);
  if (event->button() == Qt::RightButton) {
    held_ = hit;
    return removeHeld();
  }
  if (event->button() != Qt::LeftButton) return;
  isDragging_ = true;
  held_ = hit;
  if (hit < 0) addAt(field().pointFrom(event->position()));
  update();
}

void CurveField::mouseMoveEvent(QMouseEvent* event) {
  if (isDragging_) moveTo(field().pointFrom(event->position()));
}

void CurveField::mouseReleaseEvent(QMouseEvent*) {
  if (!isDragging_) return;
  isDragging_ = false;
  emit finished();
}

void CurveField::keyPressEvent(QKeyEvent* event) {
  const int last = static_cast<int>(curve_.size()) - 1;
  const CurvePoint at = held_ >= 0 && held_ <= last ? curve_[static_cast<std::size_t>(held_)] : CurvePoint{};
  switch (event->key()) {
    case Qt::Key_PageDown:
      held_ = std::min(held_ + 1, last);
      break;
    case Qt::Key_PageUp:
      held_ = std::max(held_ - 1, std::min(0, last));
      break;
    case Qt::Key_Left:
      moveTo({at.at - kNudge, at.value});
      break;
    case Qt::Key_Right:
      moveTo({at.at + kNudge, at.value});
      break;
    case Qt::Key_Up:
      moveTo({at.at, at.value + kNudge});
      break;
    case Qt::Key_Down:
      moveTo({at.at, at.value - kNudge});
      break;
    case Qt::Key_Insert:
      addAt({at.at + 0.1, at.value});
      break;
    case Qt::Key_Delete:
      removeHeld();
      break;
    default:
      return QWidget::keyPressEvent(event);
  }
  update();
}

}  // namespace chispa::desk
