// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QWidget>

#include "desk/parts/curvebox.h"

namespace chispa::desk {

/// A curve that is drawn by hand: a press adds a point or takes one, a drag moves it, a right click or Delete
/// takes it away. From the keyboard: Tab order leads here, Page Up and Page Down choose a point, arrows move
/// it, Insert adds one behind it. Holds no truth: what is drawn is what `show()` was given. UI thread.
class CurveField : public QWidget {
  Q_OBJECT
 public:
  explicit CurveField(QWidget* parent = nullptr);

  const Curve& curve() const { return curve_; }
  void showCurve(const Curve& curve);
  /// The point that is held, or was last; -1 for none.
  int held() const { return held_; }
  /// Where a point of the curve is drawn.
  QPointF spotOf(CurvePoint point) const;
  QSize sizeHint() const override { return {220, 120}; }

 signals:
  /// The curve as it would be now; more follow while a point is dragged.
  void changed(const Curve& curve);
  /// What was drawn is one step of undo.
  void finished();

 protected:
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;

 private:
  CurveBox field() const;
  void addAt(CurvePoint point);
  void moveTo(CurvePoint point);
  void removeHeld();

  Curve curve_;
  int held_ = -1;
  bool isDragging_ = false;
};

}  // namespace chispa::desk
