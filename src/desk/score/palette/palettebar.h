// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <optional>

#include <QWidget>

#include "desk/score/palette/chosenstop.h"
#include "desk/score/palette/paletteaccess.h"

namespace chispa::desk {

/// A palette as a strip of its colours with a handle for each stop: drag a handle, double click for a new
/// one, Delete takes the chosen one away; arrows move it, Page Up and Page Down choose another. UI thread.
class PaletteBar : public QWidget {
  Q_OBJECT
 public:
  PaletteBar(PaletteAccess palette, ChosenStop& chosen, QWidget* parent = nullptr);

  QSize sizeHint() const override { return {200, 58}; }
  /// Where stop `i` is taken hold of.
  QPointF handleOf(std::size_t i) const;

 protected:
  bool event(QEvent* event) override;
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void mouseDoubleClickEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;
  void focusInEvent(QFocusEvent* event) override;
  void focusOutEvent(QFocusEvent* event) override;

 private:
  QRectF strip() const;
  double placeAt(double x) const;
  std::optional<std::size_t> stopAt(QPointF at) const;
  void add(double at);
  void moveTo(double at);
  void removeChosen();

  PaletteAccess palette_;
  ChosenStop& chosen_;
  bool isDragging_ = false;
};

}  // namespace chispa::desk
