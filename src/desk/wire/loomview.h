// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <optional>

#include <QWidget>

#include "desk/session/session.h"
#include "desk/wire/loomlayout.h"
#include "desk/wire/loompower.h"

namespace chispa::desk {

/// The loom: controllers on a beam, a thread from each port, and what hangs on it as beads to the scale of
/// pixels. Beads are dragged from the tray, along threads and between them (Ctrl hangs an echo, Shift spreads
/// a fixture's strings over ports); C cuts, P puts a power pin, R turns round, Delete takes off, F folds a
/// controller; Ctrl and the wheel zoom.
class LoomView : public QWidget {
  Q_OBJECT
 public:
  explicit LoomView(const Session& session, QWidget* parent = nullptr);

  const LoomLayout& layoutNow() const { return layout_; }
  LoomPower& power() { return power_; }
  /// Selects the next bead or controller whose name has `words`, and brings it into sight; false if there is
  /// none.
  bool findNext(const QString& words);
  void zoomBy(double factor, QPointF about);
  void toggleFold(ControllerId id);

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
  void paintTool(QPainter& painter) const;
  std::optional<ThreadPlace> selectedBead() const;
  std::optional<ControllerId> selectedController() const;
  void paintPower(QPainter& painter, const LoomLayout::BeadBox& bead) const;
  void paintThreadFoot(QPainter& painter, const LoomLayout::Thread& thread) const;
  QString dragText(const LoomLayout::Thread* thread) const;
  void useTool();
  void endTool();
  void bringIntoSight(const Selected& selected);
  void clampScroll();
  int stringsDragged() const;
  void moveSelection(int threads, int beads);
  void drop();

  Session session_;
  LoomLayout layout_;
  LoomLayout::View view_;
  LoomPower power_;
  QPointF pressed_;
  QPointF pointer_;
  enum class Tool { Move, Cut, Pin };
  Tool tool_ = Tool::Move;
  Qt::KeyboardModifiers held_;
  std::optional<LoosePiece> draggedPiece_;
  std::optional<ThreadPlace> draggedBead_;
};

}  // namespace chispa::desk
