// SPDX-License-Identifier: GPL-3.0-or-later
// What mouse, touchpad and keys do on LoomView.
#include <QContextMenuEvent>
#include <QMenu>
#include <QMouseEvent>

#include "desk/parts/contextmenu.h"
#include "desk/parts/gesture.h"
#include "desk/session/picking.h"
#include "desk/wire/loomview.h"

namespace chispa::desk {

void LoomView::mousePressEvent(QMouseEvent* event) {
  if (event->button() != Qt::LeftButton) return;
  pressed_ = pointer_ = event->position();
  held_ = event->modifiers();
  if (tool_ != Tool::Move) return useTool();
  if (const auto* chip = layout_.chipAt(pressed_)) {
    draggedPiece_ = chip->piece;
    pick(session_.selection, chip->piece.fixture, {chip->piece.fixture}, event->modifiers());
  } else if (const auto* bead = layout_.beadAt(pressed_)) {
    session_.selection.select(BeadPlace{bead->place.controller, bead->place.port, bead->place.bead});
    draggedBead_ = bead->place;
  } else if (const auto* card = layout_.cardAt(pressed_)) {
    session_.selection.select(card->controller);
  } else if (const auto* chain = layout_.chainAt(pressed_)) {
    session_.selection.select(PortChoice{chain->controller, chain->port});
  } else {
    session_.selection.clear();
  }
}

void LoomView::mouseMoveEvent(QMouseEvent* event) {
  pointer_ = event->position();
  held_ = event->modifiers();
  if (tool_ != Tool::Move || draggedPiece_ || draggedBead_) update();
}

void LoomView::mouseReleaseEvent(QMouseEvent* event) {
  pointer_ = event->position();
  held_ = event->modifiers();
  constexpr double kDragBegins = 6;
  if ((pointer_ - pressed_).manhattanLength() >= kDragBegins) drop();
  draggedPiece_.reset();
  draggedBead_.reset();
  update();
}

void LoomView::drop() {
  const auto place = layout_.dropPlace(pointer_);
  const bool spreads = place && held_ & Qt::ShiftModifier && stringsDragged() > 1;
  if (spreads) {
    const Bead* bead = draggedBead_ ? beadAt(session_.show(), *draggedBead_) : nullptr;
    const FixtureId id = draggedPiece_ ? draggedPiece_->fixture : bead->fixture;
    session_.edit(tr("spread over ports"), [&](Show& show) {
      Show spread = show;
      if (draggedBead_) unhang(spread, *draggedBead_);
      if (spreadOverPorts(spread, id, place->controller, place->port) > 0) show = spread;
    });
  } else if (draggedPiece_ && place) {
    hangDragged(*place);
  } else if (draggedBead_ && place && held_ & Qt::ControlModifier) {
    session_.edit(tr("echo a bead"), [&](Show& show) { echoBead(show, *draggedBead_, *place); });
  } else if (draggedBead_ && place) {
    session_.edit(tr("move a bead"), [&](Show& show) { moveBead(show, *draggedBead_, *place); });
  } else if (draggedBead_ && layout_.tray().contains(pointer_)) {
    session_.edit(tr("remove from a port"), [&](Show& show) { unhang(show, *draggedBead_); });
    session_.selection.prune(session_.show(), nullptr);
  }
}

void LoomView::endTool() {
  tool_ = Tool::Move;
  setCursor(Qt::ArrowCursor);
  update();
}

void LoomView::useTool() {
  const Tool tool = tool_;
  endTool();
  const auto* bead = layout_.beadAt(pointer_);
  if (!bead) return;
  const ChainPlace place = bead->place;
  const int above = LoomLayout::pixelsAbove(*bead, pointer_.y());
  if (tool == Tool::Cut)
    return session_.edit(tr("cut after %1").arg(above), [&](Show& show) {
      held_& Qt::ShiftModifier ? cutToNextPort(show, place, above) : cutBead(show, place, above);
    });
  session_.edit(tr("add an injection point"), [&](Show& show) { inject(show, place, above); });
  session_.selection.select(BeadPlace{place.controller, place.port, place.bead});
}

void LoomView::wheelEvent(QWheelEvent* event) {
  const WheelTurn turn = turnOf(*event);
  if (turn.zoom != 1) return zoomBy(turn.zoom, event->position());
  const QPointF by = turn.scroll_px;
  // What fits its height is scrolled sideways.
  const bool isTall = layout_.height() > layout_.tray().top() - layout_.beamY() + 1;
  if (layout_.tray().contains(event->position()))
    view_.tray += by.x() + by.y();
  else
    view_.scrolled += isTall ? by : QPointF(by.x() + by.y(), 0);
  clampScroll();
  relayout();
}

void LoomView::moveSelection(int chains, int beads) {
  const auto& all = layout_.chains();
  if (all.empty()) return;
  std::size_t chain = 0;
  int bead = 0;
  const auto at = [&](ControllerId controller, int port) {
    for (std::size_t i = 0; i < all.size(); ++i)
      if (all[i].controller == controller && all[i].port == port) return i;
    return std::size_t{0};
  };
  if (const auto* chosen = std::get_if<BeadPlace>(&session_.selection.now())) {
    chain = at(chosen->controller, chosen->port);
    bead = chosen->bead + beads;
  } else if (const auto* port = std::get_if<PortChoice>(&session_.selection.now())) {
    chain = at(port->controller, port->port);
  }
  chain = static_cast<std::size_t>(
      std::clamp<std::ptrdiff_t>(static_cast<std::ptrdiff_t>(chain) + chains, 0, std::ssize(all) - 1));
  const auto& to = all[chain];
  if (to.beads.empty()) return session_.selection.select(PortChoice{to.controller, to.port});
  session_.selection.select(
      BeadPlace{to.controller, to.port, std::clamp(bead, 0, static_cast<int>(to.beads.size()) - 1)});
  bringIntoSight(session_.selection.now());
}

void LoomView::keyPressEvent(QKeyEvent* event) {
  const auto bead = selectedBead();
  switch (event->key()) {
    case Qt::Key_C:
    case Qt::Key_P:
      tool_ = event->key() == Qt::Key_C ? Tool::Cut : Tool::Inject;
      setCursor(Qt::SplitVCursor);
      return update();
    case Qt::Key_Escape:
      draggedPiece_.reset();
      draggedBead_.reset();
      return endTool();
    case Qt::Key_F:
      if (const auto owner = selectedController()) toggleFold(*owner);
      return;
    case Qt::Key_Plus:
    case Qt::Key_Equal:
      return zoomBy(1.25, rect().center());
    case Qt::Key_Minus:
      return zoomBy(0.8, rect().center());
    case Qt::Key_R:
      if (bead) session_.edit(tr("reverse"), [&](Show& show) { turnBead(show, *bead); });
      return;
    case Qt::Key_Left:
      return moveSelection(-1, 0);
    case Qt::Key_Right:
      return moveSelection(1, 0);
    case Qt::Key_Up:
      return moveSelection(0, -1);
    case Qt::Key_Down:
      return moveSelection(0, 1);
    default:
      QWidget::keyPressEvent(event);
  }
}

std::vector<UnwiredPiece> LoomView::draggedPieces() const {
  if (!draggedPiece_) return {};
  const FixtureIds chosen = session_.selection.fixtures();
  if (chosen.size() < 2 || !session_.selection.has(draggedPiece_->fixture)) return {*draggedPiece_};
  const auto unwired = unwiredPieces(session_.show());
  std::vector<UnwiredPiece> pieces;
  for (const FixtureId id : chosen)
    std::copy_if(unwired.begin(), unwired.end(), std::back_inserter(pieces),
                 [id](const UnwiredPiece& piece) { return piece.fixture == id; });
  return pieces;
}

void LoomView::hangDragged(const ChainPlace& place) {
  const std::vector<UnwiredPiece> pieces = draggedPieces();
  const QString name = pieces.size() > 1 ? tr("hang from port %1 on").arg(place.port + 1)
                                         : tr("hang on port %1").arg(place.port + 1);
  session_.edit(name, [&](Show& show) { hangInTurn(show, pieces, place); });
  session_.selection.select(BeadPlace{place.controller, place.port, place.bead});
}

bool LoomView::event(QEvent* event) {
  if (const auto pinch = pinchOf(*event)) {
    zoomBy(pinch->zoom, pinch->at);
    return true;
  }
  return QWidget::event(event);
}

void LoomView::contextMenuEvent(QContextMenuEvent* event) {
  const QPointF at = event->pos();
  if (const auto* bead = layout_.beadAt(at)) {
    session_.selection.select(BeadPlace{bead->place.controller, bead->place.port, bead->place.bead});
    return showBeadMenu(*bead, at, event->globalPos());
  }
  if (const auto* card = layout_.cardAt(at)) {
    session_.selection.select(card->controller);
    QMenu menu(this);
    menu.setObjectName(QStringLiteral("contextMenu"));
    menu.addAction(card->isFolded ? tr("Unfold") : tr("Fold"), this,
                   [this, id = card->controller] { toggleFold(id); });
    for (const char* name : {"rename", "delete"})
      if (auto* action = window()->findChild<QAction*>(QLatin1String(name))) menu.addAction(action);
    menu.exec(event->globalPos());
    return;
  }
  showActions(*this, event->globalPos(), {"menuAddController", "", "exportSheet", "exportBooklet"});
}

void LoomView::showBeadMenu(const LoomLayout::BeadBox& bead, QPointF at, QPoint global) {
  const ChainPlace place = bead.place;
  const int above = LoomLayout::pixelsAbove(bead, at.y());
  const auto edit = [this](const QString& name, auto change) {
    return [this, name, change] { session_.edit(name, change); };
  };
  QMenu menu(this);
  menu.setObjectName(QStringLiteral("contextMenu"));
  menu.addAction(tr("Cut after %1").arg(above), this,
                 edit(tr("cut after %1").arg(above), [=](Show& show) { cutBead(show, place, above); }));
  menu.addAction(tr("Cut after %1, the rest to the next port").arg(above), this,
                 edit(tr("cut after %1").arg(above), [=](Show& show) { cutToNextPort(show, place, above); }));
  menu.addAction(tr("Inject power before pixel %1").arg(above + 1), this,
                 edit(tr("add an injection point"), [=](Show& show) { inject(show, place, above); }));
  menu.addSeparator();
  menu.addAction(tr("Reverse"), this, edit(tr("reverse"), [=](Show& show) { turnBead(show, place); }));
  menu.addAction(tr("Remove from port"), this,
                 edit(tr("remove from a port"), [=](Show& show) { unhang(show, place); }));
  menu.exec(global);
}

}  // namespace chispa::desk
