// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <functional>

#include <QWidget>

#include "core/media/livepicture.h"

namespace chispa::desk {

/// Covers a screen with what it shows, darkened, until a part of it is drawn with the mouse; Esc leaves.
/// Deletes itself. UI thread.
class ScreenPicker : public QWidget {
  Q_OBJECT
 public:
  /// The part, and what it showed when the picker came up; null where the desktop lets nobody look.
  using Picked = std::function<void(const ScreenPart& part, const QImage& seen)>;

  /// On screen `screen`, from 0; the first one where there is none such. `words` say what the box is for.
  ScreenPicker(int screen, const QString& words, Picked picked);

 protected:
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;

 private:
  int screen_;
  QString words_;
  Picked picked_;
  QPixmap behind_;
  QPoint pressed_;
  QRect part_;
};

}  // namespace chispa::desk
