// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/glow/glowview.h"

#include <cmath>

#include <QMouseEvent>
#include <QPainter>

#include "desk/parts/gesture.h"
#include "desk/parts/theme.h"
#include "desk/session/stage.h"

namespace chispa::desk {

GlowView::GlowView(Stage& stage, QWidget* parent) : QWidget(parent), stage_(stage) {
  setFocusPolicy(Qt::StrongFocus);
  setMinimumSize(120, 90);
  setAccessibleName(tr("Glow"));
  setToolTip(tr(
      "The light as an eye would see it. A drag, the arrow keys or the wheel turn it; Ctrl and the wheel, or "
      "+ and −, come nearer; Home shows all."));
  setAttribute(Qt::WA_OpaquePaintEvent);
  connect(&stage_, &Stage::ticked, this, [this] {
    // What was left out for want of time is drawn later.
    if (stage_.hasMoved() || isStale_) redraw();
  });
  connect(&stage_, &Stage::compiledChanged, this, &GlowView::redraw);
}

void GlowView::redraw() {
  isStale_ = true;
  update();
}

void GlowView::frameAll() {
  isFramed_ = true;
  framedOf_.reset();
  redraw();
}

void GlowView::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  const double ratio = devicePixelRatioF();
  const QSize size = (QSizeF(this->size()) * ratio).toSize();
  if (image_.size() != size) {
    image_ = QImage(size, QImage::Format_RGBX8888);
    image_.fill(Qt::black);
    sinceDrawn_.invalidate();
  }
  // What lies beneath may be painted many times between two frames of light.
  constexpr qint64 kRest = 3;
  const bool mayDraw = !sinceDrawn_.isValid() || sinceDrawn_.nsecsElapsed() >= kRest * drawing_ns_;
  if (isStale_ && mayDraw) {
    isStale_ = false;
    QElapsedTimer clock;
    clock.start();
    static const PixelFrame kDark;
    static const PixelMap kNothing;
    const auto compiled = stage_.compiled();
    if (isFramed_ && compiled) frame(compiled);
    const bool fits = compiled && stage_.frame().size() == compiled->map->positions.size();
    painter_.paint(compiled ? *compiled->map : kNothing, fits ? stage_.seenFrame() : kDark, camera_,
                   size.width(), size.height(), image_.bits());
    drawing_ns_ = clock.nsecsElapsed();
    sinceDrawn_.start();
  }
  image_.setDevicePixelRatio(ratio);
  painter.drawImage(0, 0, image_);
  if (hasFocus()) {
    painter.setPen(theme().ember);
    painter.drawRect(rect().adjusted(0, 0, -1, -1));
  }
}

void GlowView::frame(const std::shared_ptr<const CompiledShow>& compiled) {
  if (framedOf_.lock() == compiled->map && framedSize_ == this->size()) return;
  framedOf_ = compiled->map;
  framedSize_ = this->size();
  camera_ = framing(compiled->map->positions, static_cast<double>(width()) / std::max(1, height()));
}

void GlowView::orbit(double yaw_deg, double pitch_deg) {
  isFramed_ = false;
  camera_.yaw_deg = std::fmod(camera_.yaw_deg + yaw_deg, 360);
  camera_.pitch_deg = std::clamp(camera_.pitch_deg + pitch_deg, -30.0, 89.0);
  redraw();
}

void GlowView::mousePressEvent(QMouseEvent* event) {
  draggedFrom_ = event->pos();
}

void GlowView::mouseMoveEvent(QMouseEvent* event) {
  const QPoint moved = event->pos() - draggedFrom_;
  draggedFrom_ = event->pos();
  constexpr double kDegreesPerPixel = 0.4;
  orbit(moved.x() * kDegreesPerPixel, moved.y() * kDegreesPerPixel);
}

void GlowView::mouseDoubleClickEvent(QMouseEvent*) {
  frameAll();
}

void GlowView::wheelEvent(QWheelEvent* event) {
  const WheelTurn turn = turnOf(*event);
  if (turn.zoom != 1) return comeNearer(turn.zoom);
  constexpr double kDegreesPerPixel = 0.2;
  orbit(-turn.scroll_px.x() * kDegreesPerPixel, -turn.scroll_px.y() * kDegreesPerPixel);
}

bool GlowView::event(QEvent* event) {
  if (const auto pinch = pinchOf(*event)) {
    comeNearer(pinch->zoom);
    return true;
  }
  return QWidget::event(event);
}

void GlowView::comeNearer(double factor) {
  isFramed_ = false;
  camera_.distance_m = std::clamp(camera_.distance_m / std::max(factor, 0.01), 0.2, 2000.0);
  redraw();
}

void GlowView::keyPressEvent(QKeyEvent* event) {
  constexpr double kStep = 5;
  switch (event->key()) {
    case Qt::Key_Left:
      return orbit(-kStep, 0);
    case Qt::Key_Right:
      return orbit(kStep, 0);
    case Qt::Key_Up:
      return orbit(0, kStep);
    case Qt::Key_Down:
      return orbit(0, -kStep);
    case Qt::Key_Home:
      return frameAll();
    case Qt::Key_Plus:
    case Qt::Key_Equal:
      return comeNearer(1 / 0.9);
    case Qt::Key_Minus:
      return comeNearer(0.9);
    default:
      QWidget::keyPressEvent(event);
  }
}

void GlowView::resizeEvent(QResizeEvent*) {
  redraw();
}

}  // namespace chispa::desk
