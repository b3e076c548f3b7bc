// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/bench/camera/cameraview.h"

#include <cmath>
#include <utility>

#include <QMouseEvent>
#include <QPainter>

#include "desk/parts/theme.h"

namespace chispa::desk {
namespace {

constexpr double kReach = 12;

}  // namespace

CameraView::CameraView(QWidget* parent) : QWidget(parent) {
  setObjectName(QStringLiteral("cameraView"));
  setAccessibleName(tr("The camera's picture"));
  setToolTip(tr("Drag a box around the LEDs to leave out the rest of the room; a click ends that"));
  setMinimumHeight(200);
}

void CameraView::showPicture(const vision::Picture& picture) {
  if (picture.isEmpty()) return;
  picture_ =
      QImage(picture.light.data(), picture.width, picture.height, picture.width, QImage::Format_Grayscale8)
          .copy();
  if (hasHistogram_) histogram_ = vision::histogramOf(picture, area_);
  update();
}

void CameraView::showSightings(const std::vector<vision::Sighting>& sightings) {
  sightings_ = sightings;
  update();
}

void CameraView::point(int led) {
  pointed_ = led;
  update();
}

void CameraView::setArea(const vision::Area& area) {
  area_ = area;
  update();
}

QRectF CameraView::pictureBox() const {
  if (picture_.isNull()) return rect();
  const double scale = std::min(static_cast<double>(width()) / picture_.width(),
                                static_cast<double>(height()) / picture_.height());
  const QSizeF size(picture_.width() * scale, picture_.height() * scale);
  return {QPointF((width() - size.width()) / 2, (height() - size.height()) / 2), size};
}

QPointF CameraView::onScreen(const vision::Spot& spot) const {
  const QRectF box = pictureBox();
  return box.topLeft() + QPointF((spot.x + 0.5) * box.width() / std::max(1, picture_.width()),
                                 (spot.y + 0.5) * box.height() / std::max(1, picture_.height()));
}

vision::Spot CameraView::inPicture(QPointF at) const {
  const QRectF box = pictureBox();
  return {(at.x() - box.left()) * picture_.width() / box.width() - 0.5,
          (at.y() - box.top()) * picture_.height() / box.height() - 0.5};
}

int CameraView::nearest(QPointF at) const {
  int led = -1;
  double least = kReach;
  for (const vision::Sighting& one : sightings_) {
    const QPointF off = onScreen(one.spot) - at;
    const double distance = std::hypot(off.x(), off.y());
    if (distance >= least) continue;
    least = distance;
    led = one.led;
  }
  return led;
}

void CameraView::mousePressEvent(QMouseEvent* event) {
  pressedAt_ = event->position();
  drawing_ = {};
  dragged_ = isEditing_ ? nearest(event->position()) : -1;
}

void CameraView::mouseMoveEvent(QMouseEvent* event) {
  if (dragged_ >= 0) {
    for (vision::Sighting& one : sightings_)
      if (one.led == dragged_) one.spot = inPicture(event->position());
  } else if (!isEditing_) {
    drawing_ = QRectF(pressedAt_, event->position()).normalized() & pictureBox();
  }
  update();
}

void CameraView::mouseReleaseEvent(QMouseEvent* event) {
  if (isEditing_) {
    // A click puts the LED there that was chosen in the list; a drag moves the one it began on.
    const bool isClick = (event->position() - pressedAt_).manhattanLength() < 4;
    const int led = isClick ? pointed_ : std::exchange(dragged_, -1);
    dragged_ = -1;
    if (led >= 0) emit moved(led, inPicture(event->position()));
    return;
  }
  area_ = {};
  if (drawing_.width() > 8 && drawing_.height() > 8) {
    const vision::Spot corner = inPicture(drawing_.topLeft());
    const vision::Spot far = inPicture(drawing_.bottomRight());
    area_ = {static_cast<int>(corner.x + 0.5), static_cast<int>(corner.y + 0.5),
             static_cast<int>(far.x - corner.x), static_cast<int>(far.y - corner.y)};
  }
  drawing_ = {};
  update();
  emit areaChanged();
}

void CameraView::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  painter.setRenderHint(QPainter::Antialiasing);
  painter.fillRect(rect(), theme().night);
  if (picture_.isNull()) {
    painter.setPen(QColor(0x9a, 0x96, 0x8e));
    painter.drawText(rect(), Qt::AlignCenter,
                     tr("No picture yet: choose where pictures come from, and open it."));
    return;
  }
  painter.setRenderHint(QPainter::SmoothPixmapTransform);
  painter.drawImage(pictureBox(), picture_);
  constexpr std::size_t kMany = 300;
  const double sureRadius = sightings_.size() > kMany ? 1 : 2;
  for (const vision::Sighting& one : sightings_) {
    const QPointF at = onScreen(one.spot);
    const bool isSure = one.doubt.empty();
    painter.setPen(QPen(isSure ? theme().fine : theme().watch, isSure ? 0.6 : 1.4));
    painter.setBrush(isSure ? QBrush(theme().fine) : QBrush(Qt::NoBrush));
    const double radius = one.led == pointed_ ? 6 : isSure ? sureRadius : 4;
    painter.drawEllipse(at, radius, radius);
    if (one.led == pointed_) {
      painter.setPen(theme().ember);
      painter.drawText(at + QPointF(9, -6), QString::number(one.led + 1));
    }
  }
  painter.setBrush(Qt::NoBrush);
  painter.setPen(QPen(theme().ember, 1.5, Qt::DashLine));
  if (!drawing_.isNull())
    painter.drawRect(drawing_);
  else if (!area_.isAll())
    painter.drawRect(QRectF(onScreen({area_.x - 0.5, area_.y - 0.5}),
                            onScreen({area_.x + area_.width - 0.5, area_.y + area_.height - 0.5})));
  if (!hasHistogram_) return;
  const QRectF box(12, height() - 76.0, 196, 64);
  painter.fillRect(box, QColor(0, 0, 0, 170));
  double most = 1;
  for (const int n : histogram_) most = std::max(most, std::log1p(n));
  for (std::size_t i = 0; i < histogram_.size(); ++i) {
    const double tall = std::log1p(histogram_[i]) / most * (box.height() - 6);
    painter.fillRect(QRectF(box.left() + 2 + static_cast<double>(i) * 3, box.bottom() - 2 - tall, 2.2, tall),
                     i >= 62 ? theme().wrong : QColor(0xd8, 0xd4, 0xcc));
  }
}

}  // namespace chispa::desk
