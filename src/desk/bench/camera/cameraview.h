// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QImage>
#include <QWidget>

#include "core/vision/exposure.h"
#include "core/vision/spotter.h"

namespace chispa::desk {

/// The camera's picture with what was found over it: green dots are sure, yellow rings doubtful. A drag over
/// the picture marks the part of it that counts; a drag of a dot moves it.
class CameraView : public QWidget {
  Q_OBJECT
 public:
  explicit CameraView(QWidget* parent = nullptr);

  void showPicture(const vision::Picture& picture);
  void showSightings(const std::vector<vision::Sighting>& sightings);
  void showHistogram(bool on) { hasHistogram_ = on; }
  /// The LED that is pointed out, −1 for none.
  void point(int led);
  const vision::Area& area() const { return area_; }
  void setArea(const vision::Area& area);
  /// True if dots can be moved, and a click places the LED that is pointed out.
  void setEditing(bool on) { isEditing_ = on; }

 signals:
  void areaChanged();
  /// An LED was put there by hand.
  void moved(int led, chispa::vision::Spot spot);

 protected:
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;

 private:
  QRectF pictureBox() const;
  QPointF onScreen(const vision::Spot& spot) const;
  vision::Spot inPicture(QPointF at) const;
  int nearest(QPointF at) const;

  QImage picture_;
  vision::Histogram histogram_{};
  bool hasHistogram_ = false;
  std::vector<vision::Sighting> sightings_;
  vision::Area area_;
  int pointed_ = -1;
  bool isEditing_ = false;
  int dragged_ = -1;
  QPointF pressedAt_;
  QRectF drawing_;
};

}  // namespace chispa::desk
