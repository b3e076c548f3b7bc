// SPDX-License-Identifier: GPL-3.0-or-later
// What mouse, touchpad and keys do on the plan; what the left button does is the tool's (tools/).
#include <algorithm>

#include <QContextMenuEvent>
#include <QMouseEvent>

#include "core/edit/arrange.h"
#include "core/edit/planedits.h"
#include "desk/parts/contextmenu.h"
#include "desk/parts/gesture.h"
#include "desk/parts/tip.h"
#include "desk/plan/planview.h"

namespace chispa::desk {
namespace {

/// The right button asks for the menu if it moved no farther than this between press and release.
constexpr double kStill_px = 9;

}  // namespace

void PlanView::mousePressEvent(QMouseEvent* event) {
  if (event->button() == Qt::MiddleButton) panFrom_ = event->position();
  if (event->button() == Qt::RightButton) {
    rightFrom_ = event->position();
    if (side() == PlanSide::Free) orbitFrom_ = event->position();
  }
  if (event->button() == Qt::LeftButton) hand_->press({event->position(), event->modifiers()});
  update();
}

void PlanView::mouseMoveEvent(QMouseEvent* event) {
  const QPointF at = event->position();
  if (panFrom_) {
    panBy(at - *panFrom_);
    panFrom_ = at;
  } else if (orbitFrom_) {
    orbitBy(at - *orbitFrom_);
    orbitFrom_ = at;
  } else {
    hand_->move({at, event->modifiers()});
  }
  if (event->buttons() || tool_ != PlanTool::Select) update();
}

void PlanView::mouseReleaseEvent(QMouseEvent* event) {
  panFrom_.reset();
  orbitFrom_.reset();
  if (event->button() == Qt::LeftButton) hand_->release({event->position(), event->modifiers()});
  // The right button turns the free view; where it stays in place it asks what can be done.
  if (const auto from = std::exchange(rightFrom_, {});
      from && (event->position() - *from).manhattanLength() < kStill_px)
    showMenu(event->position());
  update();
}

void PlanView::mouseDoubleClickEvent(QMouseEvent*) {
  hand_->finish();
}

void PlanView::panBy(QPointF screen) {
  isFramed_ = false;
  centre_ -= QPointF(screen.x() / scale_, -screen.y() / scale_);
  update();
}

void PlanView::orbitBy(QPointF screen) {
  constexpr double kPerDegree_px = 3;
  projection_.orbit(-screen.x() / kPerDegree_px, screen.y() / kPerDegree_px);
  for (Piece& piece : pieces_) flatten(piece);
  updatePieces();
}

void PlanView::zoomBy(double factor, QPointF about) {
  isFramed_ = false;
  const QPointF before = toPlan(about);
  scale_ = std::clamp(scale_ * factor, 2.0, 8000.0);
  centre_ += before - toPlan(about);
  update();
}

void PlanView::wheelEvent(QWheelEvent* event) {
  const WheelTurn turn = turnOf(*event);
  if (turn.zoom != 1) return zoomBy(turn.zoom, event->position());
  panBy(-turn.scroll_px);
}

bool PlanView::event(QEvent* event) {
  if (const auto pinch = pinchOf(*event)) {
    zoomBy(pinch->zoom, pinch->at);
    return true;
  }
  if (showTip(*event, *this, [this](QPointF at) { return tipAt(at); })) return true;
  return QWidget::event(event);
}

void PlanView::contextMenuEvent(QContextMenuEvent* event) {
  // The right button is heard when it is let go: it turns the free view, too.
  if (event->reason() == QContextMenuEvent::Keyboard) showMenu(rect().center());
}

void PlanView::showMenu(QPointF at) {
  const auto hit = fixtureAt(at);
  if (hit && !session_.selection.has(*hit)) session_.selection.select(withGroups(session_.show(), {*hit}));
  const bool isOfFixtures = hit || !session_.selection.fixtures().empty();
  showActions(*this, mapToGlobal(at.toPoint()),
              isOfFixtures
                  ? QStringList{"rename", "duplicate", "delete", "", "group", "ungroup", "", "locate",
                                "isolate", "", "copyZones", "pasteZones", "", "exportPoints"}
                  : QStringList{"selectAll", "showAll", "", "importPoints", "importSvg", "addLettering",
                                "addUnderlay", "", "exportPlan"});
}

void PlanView::nudge(QPointF by_m) {
  const FixtureIds ids = withGroups(session_.show(), session_.selection.fixtures());
  if (ids.empty()) return;
  session_.edit(
      tr("nudge"), [&](Show& show) { moveFixtures(show, ids, projection_.lifted(by_m)); },
      QStringLiteral("plan-nudge"));
}

void PlanView::walk(int pixels) {
  const FixtureIds ids = session_.selection.fixtures();
  if (ids.size() != 1) return;
  const int count = pixelCount(*chispa::find(session_.show().fixtures, ids.front()));
  const int next = session_.selection.pixel().value_or(pixels > 0 ? -1 : count) + pixels;
  session_.selection.choosePixel(std::clamp(next, 0, count - 1));
}

void PlanView::keyPressEvent(QKeyEvent* event) {
  const double step = event->modifiers() & Qt::ShiftModifier ? 0.1 : 0.01;
  switch (event->key()) {
    case Qt::Key_Left:
      return nudge({-step, 0});
    case Qt::Key_Right:
      return nudge({step, 0});
    case Qt::Key_Up:
      return nudge({0, step});
    case Qt::Key_Down:
      return nudge({0, -step});
    case Qt::Key_BracketLeft:
      return walk(-1);
    case Qt::Key_BracketRight:
      return walk(1);
    case Qt::Key_Home:
      return frameAll();
    case Qt::Key_Return:
    case Qt::Key_Enter:
      return hand_->finish();
    case Qt::Key_Plus:
    case Qt::Key_Equal:
      return zoomBy(1.25, rect().center());
    case Qt::Key_Minus:
      return zoomBy(0.8, rect().center());
    case Qt::Key_Escape:
      if (hand_->cancel()) return update();
      if (tool_ == PlanTool::Select) session_.selection.clear();
      return setTool(PlanTool::Select);
    default:
      QWidget::keyPressEvent(event);
  }
}

}  // namespace chispa::desk
