// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QImage>
#include <QWidget>

#include "core/eye/exposure.h"
#include "core/eye/spotter.h"

namespace chispa::desk {

/// The camera's picture with what was found over it: green dots are sure, yellow rings doubtful. A drag over
/// the picture marks the part of it that counts; a drag of a dot moves it.
class CameraView : public QWidget {
  Q_OBJECT
 public:
  explicit CameraView(QWidget* parent = nullptr);

  void showPicture(const eye::Picture& picture);
  void showSightings(const std::vector<eye::Sighting>& sightings);
  void showHistogram(bool on) { hasHistogram_ = on; }
  /// The LED that is pointed out, −1 for none.
  void point(int led);
  const eye::Area& area() const { return area_; }
  void setArea(const eye::Area& area);
  /// True if dots can be moved, and a click places the LED that is pointed out.
  void setEditing(bool on) { isEditing_ = on; }

 signals:
  void areaChanged();
  /// An LED was put there by hand.
  void moved(int led, chispa::eye::Spot spot);

 protected:
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;

 private:
  QRectF pictureBox() const;
  QPointF onScreen(const eye::Spot& spot) const;
  eye::Spot inPicture(QPointF at) const;
  int nearest(QPointF at) const;

  QImage picture_;
  eye::Histogram histogram_{};
  bool hasHistogram_ = false;
  std::vector<eye::Sighting> sightings_;
  eye::Area area_;
  int pointed_ = -1;
  bool isEditing_ = false;
  int dragged_ = -1;
  QPointF pressedAt_;
  QRectF drawing_;
};

}  // namespace chispa::desk
