// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <optional>

#include <QAbstractButton>
#include <QImage>

#include "desk/session/session.h"

namespace chispa::desk {

/// The pad of a look: a picture of its light that moves while it plays, its fader, name and key. Pressing it
/// plays, letting go lets go. UI thread.
class LookPad : public QAbstractButton {
  Q_OBJECT
 public:
  LookPad(const Session& session, LookId look, QWidget* parent = nullptr);

  LookId look() const { return look_; }
  /// Takes name, key and picture anew.
  void refresh();
  /// What plays has changed, or time has passed.
  void follow();
  QSize sizeHint() const override;

 signals:
  void asked(QPoint at);

 protected:
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;
  void keyReleaseEvent(QKeyEvent* event) override;
  void contextMenuEvent(QContextMenuEvent* event) override;
  void focusOutEvent(QFocusEvent* event) override;
  void resizeEvent(QResizeEvent* event) override;

 private:
  void press();
  void letGo();
  /// By its name it can be dragged into a set list; a look that is held or flashed begins with the press.
  bool mayBeDraggedAt(QPoint at) const;
  void dragAway();
  QRect pictureBox() const;
  QRect faderBox() const;
  void setFader(int x);
  float faderNow() const;
  void draw(double elapsed_s);

  Session session_;
  LookId look_;
  QImage picture_;
  bool isHeld_ = false;
  bool movesFader_ = false;
  /// Where its name was taken, until it is clear whether it is dragged.
  std::optional<QPoint> takenAt_;
  /// What was shown last.
  float presence_ = 0;
  float fader_ = -1;
  double drawnAt_s_ = -1;
  const void* drawnOf_ = nullptr;
};

}  // namespace chispa::desk
