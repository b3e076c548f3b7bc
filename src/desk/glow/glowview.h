// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <memory>

#include <QElapsedTimer>
#include <QImage>
#include <QWidget>

#include "core/preview/glow.h"

namespace chispa {
struct CompiledShow;
}

namespace chispa::desk {

class Stage;

/// The simulated light of the whole installation. A drag or the wheel turns it, the wheel with Ctrl comes
/// nearer, Home shows all of it.
class GlowView : public QWidget {
  Q_OBJECT
 public:
  explicit GlowView(Stage& stage, QWidget* parent = nullptr);

  QSize sizeHint() const override { return {480, 300}; }
  const OrbitCamera& camera() const { return camera_; }
  /// Back to the view from the front that has everything in it.
  void frameAll();

 protected:
  bool event(QEvent* event) override;
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseDoubleClickEvent(QMouseEvent* event) override;
  void wheelEvent(QWheelEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;
  void resizeEvent(QResizeEvent* event) override;

 private:
  /// Everything of `compiled` in view, unless the camera stands so already.
  void frame(const std::shared_ptr<const CompiledShow>& compiled);
  void orbit(double yaw_deg, double pitch_deg);
  void comeNearer(double factor);
  void redraw();

  Stage& stage_;
  GlowPainter painter_;
  QImage image_;
  OrbitCamera camera_;
  /// False once the user has turned it.
  bool isFramed_ = true;
  /// What the camera was framed for.
  std::weak_ptr<const PixelMap> framedOf_;
  QSize framedSize_;
  /// When the picture was drawn, and how long that took: it rests so long between two pictures that it takes
  /// no more than a quarter of the window's time.
  QElapsedTimer sinceDrawn_;
  qint64 drawing_ns_ = 0;
  /// The picture is not that of the present light, camera or size.
  bool isStale_ = true;
  QPoint draggedFrom_;
};

}  // namespace chispa::desk
