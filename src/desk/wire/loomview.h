// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <optional>

#include <QWidget>

#include "desk/parts/pieces.h"
#include "desk/session/session.h"
#include "desk/wire/loomlayout.h"
#include "desk/wire/loompower.h"

namespace chispa::desk {

inline BeadPlace beadPlace(const ChainPlace& place) {
  return {place.controller, place.port, place.bead};
}
inline bool isAt(const BeadPlace& bead, const ChainPlace& place) {
  return bead.controller == place.controller && bead.port == place.port && bead.bead == place.bead;
}

/// The loom: controllers on a beam, a chain from each port, and what hangs on it as beads to the scale of
/// pixels. Beads are dragged from the tray, along chains and between them (Ctrl hangs an echo, Shift spreads
/// a fixture's strings over ports); C cuts (Shift: the rest goes to the next port), P injects power, R
/// reverses, Delete removes, F folds a controller; Ctrl and the wheel zoom. Clicks with Ctrl and Shift select
/// several beads, ports or controllers; several pieces of the tray go to a port each. Drawn in loompaint.cpp;
/// mouse and keys are in loominput.cpp, menus in loommenus.cpp, words in
/// loomwords.cpp.
class LoomView : public QWidget, public PieceTeller {
  Q_OBJECT
 public:
  /// Ports of a controller that is added here.
  static constexpr int kPortsOfNew = 4;

  explicit LoomView(const Session& session, QWidget* parent = nullptr);

  const LoomLayout& layoutNow() const { return layout_; }
  LoomPower& power() { return power_; }
  /// Selects the next bead or controller whose name has `words`, and brings it into sight; false if there is
  /// none.
  bool findNext(const QString& words);
  void zoomBy(double factor, QPointF about);
  void toggleFold(ControllerId id);

  int toldCount() const override;
  ToldPiece told(int i) const override;
  void selectTold(int i) override;
  int selectedTold() const override;

 protected:
  void paintEvent(QPaintEvent* event) override;
  void resizeEvent(QResizeEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void wheelEvent(QWheelEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;
  void contextMenuEvent(QContextMenuEvent* event) override;
  bool event(QEvent* event) override;

 private:
  /// Which of its things the view tells of.
  struct Told {
    enum class Kind { Card, Port, Bead, Chip } kind;
    /// Among those of its kind.
    std::size_t index;
  };
  Told kindOf(int i) const;
  void relayout();
  void paintCards(QPainter& painter) const;
  void paintChain(QPainter& painter, const LoomLayout::Chain& chain) const;
  void paintBead(QPainter& painter, const LoomLayout::BeadBox& bead) const;
  void paintTicks(QPainter& painter, const LoomLayout::Chain& chain) const;
  void paintTray(QPainter& painter) const;
  void paintDrag(QPainter& painter) const;
  void paintTool(QPainter& painter) const;
  std::optional<ControllerId> selectedController() const;
  void paintPower(QPainter& painter, const LoomLayout::BeadBox& bead) const;
  void paintChainFoot(QPainter& painter, const LoomLayout::Chain& chain) const;
  QString dragText(const LoomLayout::Chain* chain) const;
  void useTool();
  /// What the selected fixtures have in the tray, if the piece that is dragged is one of them; else the
  /// piece.
  std::vector<UnwiredPiece> draggedPieces() const;
  void hangDragged(const ChainPlace& place);
  /// Where there is none yet.
  void hangOnNewController();
  /// What a press that was no drag does.
  void click();
  /// What is told of the thing there: its name, pixel and address.
  QString tipAt(QPointF at) const;
  /// Where a menu of the keyboard opens.
  QPointF spotOfSelection() const;
  void showCardMenu(const LoomLayout::Card& card, QPoint global);
  void showBeadMenu(const LoomLayout::BeadBox& bead, QPointF at, QPoint global);
  void showBeadsMenu(QPoint global);
  void showPortMenu(QPoint global);
  void turnSelected();
  void removeSelected();
  void endTool();
  void bringIntoSight(const Selected& selected);
  void clampScroll();
  int stringsDragged() const;
  void moveSelection(int chains, int beads);
  void drop();

  Session session_;
  LoomLayout layout_;
  LoomLayout::View view_;
  LoomPower power_;
  QPointF pressed_;
  bool isPressed_ = false;
  QPointF pointer_;
  enum class Tool { Move, Cut, Inject };
  Tool tool_ = Tool::Move;
  Qt::KeyboardModifiers held_;
  std::optional<UnwiredPiece> draggedPiece_;
  std::optional<ChainPlace> draggedBead_;
};

}  // namespace chispa::desk
