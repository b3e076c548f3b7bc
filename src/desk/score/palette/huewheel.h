// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <optional>

#include <QImage>
#include <QWidget>

#include "core/colour/oklch.h"
#include "desk/score/palette/chosenstop.h"
#include "desk/score/palette/paletteaccess.h"

namespace chispa::desk {

/// The hues of OKLCH around, colourfulness outward, at the lightness of the chosen stop; every stop of the
/// palette is a dot that can be dragged, joined in order. Arrows turn and strengthen the chosen one. UI
/// thread.
class HueWheel : public QWidget {
  Q_OBJECT
 public:
  HueWheel(PaletteAccess palette, ChosenStop& chosen, QWidget* parent = nullptr);

  QSize sizeHint() const override { return {176, 176}; }
  /// Where a colour lies on the wheel.
  QPointF spotOf(const OkLch& colour) const;

 protected:
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;

 private:
  double radius() const;
  void drawWheel(double lightness);
  void setColour(OkLch colour);

  PaletteAccess palette_;
  ChosenStop& chosen_;
  QImage wheel_;
  double drawnLightness_ = -1;
  bool isDragging_ = false;
};

}  // namespace chispa::desk
