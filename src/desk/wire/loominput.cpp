// SPDX-License-Identifier: GPL-3.0-or-later
// What mouse, touchpad and keys do on LoomView.
#include <QMouseEvent>

#include "desk/parts/gesture.h"
#include "desk/parts/tip.h"
#include "desk/session/picking.h"
#include "desk/wire/loomview.h"
#include "desk/wire/wirerows.h"

namespace chispa::desk {
namespace {

bool isAdding(Qt::KeyboardModifiers keys) {
  return keys & (Qt::ShiftModifier | Qt::ControlModifier);
}

}  // namespace

void LoomView::mousePressEvent(QMouseEvent* event) {
  if (event->button() != Qt::LeftButton) return;
  pressed_ = pointer_ = event->position();
  held_ = event->modifiers();
  if (tool_ != Tool::Move) return useTool();
  isPressed_ = true;
  if (const auto* chip = layout_.chipAt(pressed_)) {
    draggedPiece_ = chip->piece;
    pick(session_.selection, chip->piece.fixture, {chip->piece.fixture}, event->modifiers());
  } else if (const auto* bead = layout_.beadAt(pressed_)) {
    draggedBead_ = bead->place;
    // With Ctrl or Shift it may be dragged: which of the two it was is known when it is let go.
    if (!isAdding(held_) && !session_.selection.has(beadPlace(bead->place)))
      session_.selection.select(beadPlace(bead->place));
  } else if (!layout_.cardAt(pressed_) && !layout_.chainAt(pressed_) && !isAdding(held_)) {
    session_.selection.clear();
  }
}

void LoomView::click() {
  if (const auto* bead = layout_.beadAt(pressed_)) {
    BeadPlaces all;
    for (const auto& chain : layout_.chains())
      for (const auto& one : chain.beads) all.push_back(beadPlace(one.place));
    pickOne(session_.selection, beadPlace(bead->place), all, held_);
  } else if (const auto* card = layout_.cardAt(pressed_)) {
    ControllerIds all;
    for (const auto& one : layout_.cards()) all.push_back(one.controller);
    pickOne(session_.selection, card->controller, all, held_);
  } else if (const auto* chain = layout_.chainAt(pressed_)) {
    PortChoices all;
    for (const auto& one : layout_.chains()) all.push_back({one.controller, one.port});
    pickOne(session_.selection, PortChoice{chain->controller, chain->port}, all, held_);
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
  const bool isClick = (pointer_ - pressed_).manhattanLength() < kDragBegins;
  if (event->button() == Qt::LeftButton && isPressed_) isClick ? click() : drop();
  isPressed_ = false;
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
  } else if (draggedPiece_ && session_.show().controllers.empty() && !layout_.tray().contains(pointer_)) {
    hangOnNewController();
  } else if (draggedBead_ && place && held_ & Qt::ControlModifier) {
    session_.edit(tr("echo a bead"), [&](Show& show) { echoBead(show, *draggedBead_, *place); });
  } else if (draggedBead_ && place) {
    session_.edit(tr("move a bead"), [&](Show& show) { moveBead(show, *draggedBead_, *place); });
  } else if (draggedBead_ && layout_.tray().contains(pointer_)) {
    session_.edit(tr("remove from a port"), [&](Show& show) { unhang(show, *draggedBead_); });
    session_.selection.prune(session_.show(), session_.stage.score());
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
  session_.selection.select(beadPlace(place));
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
  if (const auto chosen = session_.selection.all<BeadPlace>(); !chosen.empty()) {
    chain = at(chosen.back().controller, chosen.back().port);
    bead = chosen.back().bead + beads;
  } else if (const auto ports = session_.selection.all<PortChoice>(); !ports.empty()) {
    chain = at(ports.back().controller, ports.back().port);
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
  switch (event->key()) {
    case Qt::Key_C:
    case Qt::Key_P:
      tool_ = event->key() == Qt::Key_C ? Tool::Cut : Tool::Inject;
      setCursor(Qt::SplitVCursor);
      return update();
    case Qt::Key_Escape:
      isPressed_ = false;
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
      return turnSelected();
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

void LoomView::hangOnNewController() {
  const std::vector<UnwiredPiece> pieces = draggedPieces();
  ChainPlace place;
  session_.edit(tr("hang on a new controller"), [&](Show& show) {
    place.controller = addController(show, std::max(kPortsOfNew, static_cast<int>(pieces.size())));
    hangInTurn(show, pieces, place);
  });
  session_.selection.select(beadPlace(place));
}

void LoomView::hangDragged(const ChainPlace& place) {
  const std::vector<UnwiredPiece> pieces = draggedPieces();
  const QString name = pieces.size() > 1 ? tr("hang from port %1 on").arg(place.port + 1)
                                         : tr("hang on port %1").arg(place.port + 1);
  session_.edit(name, [&](Show& show) { hangInTurn(show, pieces, place); });
  session_.selection.select(beadPlace(place));
}

bool LoomView::event(QEvent* event) {
  if (const auto pinch = pinchOf(*event)) {
    zoomBy(pinch->zoom, pinch->at);
    return true;
  }
  if (showTip(*event, *this, [this](QPointF at) { return tipAt(at); })) return true;
  return QWidget::event(event);
}

void LoomView::turnSelected() {
  const BeadPlaces places = session_.selection.all<BeadPlace>();
  if (places.empty()) return;
  session_.edit(tr("reverse"), [&](Show& show) {
    for (const BeadPlace& place : places) turnBead(show, chainPlace(place));
  });
}

}  // namespace chispa::desk
