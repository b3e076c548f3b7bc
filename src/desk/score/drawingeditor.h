// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <functional>
#include <optional>

#include <QDialog>

#include "core/colour/palette.h"
#include "core/effect/dotdrawing.h"

class QListWidget;
class QSpinBox;

namespace chispa::desk {

/// The dots of one frame, drawn with the mouse or the keys: arrows move, Space sets, Delete clears.
class DotField : public QWidget {
  Q_OBJECT
 public:
  DotField(const Palette& palette, QWidget* parent = nullptr);

  void show(const DotDrawing& drawing, int frame);
  void setShade(int shade) { shade_ = shade; }

 signals:
  void dotSet(int column, int row, int shade);

 protected:
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;

 private:
  QRectF boxOf(int column, int row) const;
  void draw(QPointF at, bool isClearing);

  Palette palette_;
  DotDrawing drawing_;
  int frame_ = 0;
  int shade_ = DotDrawing::kShades - 1;
  int column_ = 0;
  int row_ = 0;
};

/// Draws what the effect Drawing shows; every change is in the clip at once.
class DrawingEditor : public QDialog {
  Q_OBJECT
 public:
  DrawingEditor(const Palette& palette, const QString& drawing, std::function<void(QString)> set,
                QWidget* parent = nullptr);

  /// Shows what the clip says now, as after an undo; with nothing, the clip is gone, and so is the editor.
  void follow(const std::optional<QString>& drawing);

 private:
  QWidget* makeShades(const Palette& palette);
  QWidget* makeFrames();
  void refresh();
  void commit();

  DotDrawing drawing_;
  std::function<void(QString)> set_;
  DotField* field_;
  QListWidget* shades_;
  QSpinBox* frame_;
  QSpinBox* columns_;
  QSpinBox* rows_;
};

}  // namespace chispa::desk
