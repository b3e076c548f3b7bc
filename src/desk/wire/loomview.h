// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QWidget>
#include <optional>

#include "desk/session/session.h"
#include "desk/wire/loomlayout.h"

namespace chispa::desk {

/// The loom: controllers on a beam, a thread from each port, and what hangs on it as beads to the scale of pixels.
/// Beads are dragged from the tray, along threads and between them; C cuts, R turns round, Delete takes off.
class LoomView : public QWidget {
  Q_OBJECT
 public:
  explicit LoomView(const Session& session, QWidget* parent = nullptr);

  const LoomLayout& layoutNow() const { return layout_; }

 protected:
  void paintEvent(QPaintEvent* event) override;
  void resizeEvent(QResizeEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void wheelEvent(QWheelEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;

 private:
  void relayout();
  void paintCards(QPainter& painter) const;
  void paintThread(QPainter& painter, const LoomLayout::Thread& thread) const;
  void paintBead(QPainter& painter, const LoomLayout::BeadBox& bead) const;
  void paintTicks(QPainter& painter, const LoomLayout::Thread& thread) const;
  void paintTray(QPainter& painter) const;
  void paintDrag(QPainter& painter) const;
  void paintScissors(QPainter& painter) const;
  std::optional<ThreadPlace> selectedBead() const;
  void cutAtPointer();
  int pixelsAbove(const LoomLayout::BeadBox& bead, double y) const;
  void moveSelection(int threads, int beads);
  void drop();

  Session session_;
  LoomLayout layout_;
  double scrolled_ = 0;
  QPointF pressed_;
  QPointF pointer_;
  bool cutting_ = false;
  std::optional<LoosePiece> draggedPiece_;
  std::optional<ThreadPlace> draggedBead_;
};

}  // namespace chispa::desk
