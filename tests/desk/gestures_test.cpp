// SPDX-License-Identifier: GPL-3.0-or-later
// One rule for wheel, touchpad, selection and Esc in every view, by real events.
#include <QContextMenuEvent>
#include <QMenu>
#include <QWheelEvent>

#include "core/edit/scoreedits.h"
#include "core/edit/wireedits.h"
#include "desk/glow/glowview.h"
#include "desk/window.h"

namespace chispa::desk {
namespace {

class GestureTest : public WindowTest {
 protected:
  GestureTest() {
    document_.start(ShowTemplate::HouseFront);
    window_.resize(1280, 800);
    settle();
  }
  PlanView& plan() { return window_.planPage().view(); }
  static void wheel(QWidget* on, QPointF at, QPoint turned, Qt::KeyboardModifiers held = {}) {
    QWheelEvent event(at, on->mapToGlobal(at), {}, turned, Qt::NoButton, held, Qt::NoScrollPhase, false);
    QApplication::sendEvent(on, &event);
  }
  QPointF placeOf(FixtureId id) {
    for (const PlanView::Piece& piece : plan().pieces())
      if (piece.fixture->id == id) return plan().toScreen(piece.flat[piece.flat.size() / 2]);
    return {};
  }
  /// Runs `act` while a menu comes up; returns what it offers.
  QStringList offered(const std::function<void()>& act) {
    QStringList words;
    QTimer looking;
    QObject::connect(&looking, &QTimer::timeout, &window_, [&] {
      auto* menu = qobject_cast<QMenu*>(QApplication::activePopupWidget());
      if (!menu) return;
      for (const QAction* action : menu->actions()) words << action->text().remove(QLatin1Char('&'));
      menu->close();
    });
    looking.start(20);
    act();
    return words;
  }
};

TEST_F(GestureTest, TheWheelScrollsAndWithCtrlComesNearerAtThePointer) {
  plan().setSide(PlanSide::Front);
  const QPointF at(200, 150);
  const double scale = plan().scale();
  const QPointF there = plan().toPlan(at);
  wheel(&plan(), at, {0, -120});
  EXPECT_EQ(plan().scale(), scale) << "it only scrolls";
  EXPECT_LT(plan().toPlan(at).y(), there.y()) << "downward";
  EXPECT_DOUBLE_EQ(plan().toPlan(at).x(), there.x());
  wheel(&plan(), at, {0, -120}, Qt::ShiftModifier);
  EXPECT_GT(plan().toPlan(at).x(), there.x()) << "sideways with Shift";
  const QPointF held = plan().toPlan(at);
  wheel(&plan(), at, {0, 120}, Qt::ControlModifier);
  EXPECT_GT(plan().scale(), scale);
  EXPECT_NEAR(plan().toPlan(at).x(), held.x(), 1e-9) << "what is under the pointer stays there";
  EXPECT_NEAR(plan().toPlan(at).y(), held.y(), 1e-9);
}

TEST_F(GestureTest, TheGlowTurnsByTheWheelAndComesNearerWithCtrl) {
  GlowView& glow = window_.planPage().glow();
  const OrbitCamera before = glow.camera();
  wheel(&glow, {40, 40}, {0, 120});
  EXPECT_NE(glow.camera().pitch_deg, before.pitch_deg);
  EXPECT_EQ(glow.camera().distance_m, before.distance_m);
  wheel(&glow, {40, 40}, {0, 120}, Qt::ControlModifier);
  EXPECT_LT(glow.camera().distance_m, before.distance_m);
}

TEST_F(GestureTest, CtrlTogglesAndShiftExtendsOnThePlan) {
  plan().setSide(PlanSide::Front);
  const FixtureId one = show().fixtures[2]->id, two = show().fixtures[3]->id;
  QTest::mouseClick(&plan(), Qt::LeftButton, {}, placeOf(one).toPoint());
  EXPECT_EQ(selection_.fixtures(), FixtureIds{one});
  QTest::mouseClick(&plan(), Qt::LeftButton, Qt::ControlModifier, placeOf(two).toPoint());
  EXPECT_EQ(selection_.fixtures(), (FixtureIds{one, two}));
  QTest::mouseClick(&plan(), Qt::LeftButton, Qt::ControlModifier, placeOf(one).toPoint());
  EXPECT_EQ(selection_.fixtures(), FixtureIds{two}) << "Ctrl takes it out again";
  QTest::mouseClick(&plan(), Qt::LeftButton, Qt::ShiftModifier, placeOf(one).toPoint());
  QTest::mouseClick(&plan(), Qt::LeftButton, Qt::ShiftModifier, placeOf(one).toPoint());
  EXPECT_EQ(selection_.fixtures().size(), 2u) << "Shift only adds";
}

TEST_F(GestureTest, EscCallsADragOffAndLeavesNoStep) {
  plan().setSide(PlanSide::Front);
  plan().setFocus();
  const Show before = show();
  const QPoint from = placeOf(show().fixtures[2]->id).toPoint();
  QTest::mousePress(&plan(), Qt::LeftButton, {}, from);
  QTest::mouseMove(&plan(), from + QPoint(60, 0));
  QTest::mouseMove(&plan(), from + QPoint(120, 0));
  EXPECT_NE(show(), before) << "it moves under the hand";
  QTest::keyClick(&plan(), Qt::Key_Escape);
  EXPECT_EQ(show(), before);
  QTest::mouseMove(&plan(), from + QPoint(200, 0));
  QTest::mouseRelease(&plan(), Qt::LeftButton, {}, from + QPoint(200, 0));
  EXPECT_EQ(show(), before) << "the hand is empty";
  EXPECT_FALSE(document_.canUndo());
  EXPECT_FALSE(document_.canRedo());
}

TEST_F(GestureTest, EscCallsADragOfAClipOff) {
  ScoreId id;
  document_.apply(QStringLiteral("score"), [&](Show& s) {
    id = addSilentScore(s, "Silent", 120, 4, 16);
    addClip(s, id, s.zones[0]->id, "ribbon", s.palettes[0]->id, micros(2), micros(4));
  });
  stage_.openScore(id);
  window_.showWorkspace(Workspace::Score);
  settle();
  TimelineView& timeline = window_.scorePage().timeline();
  const Show before = show();
  const QPoint from = timeline.clipBox(show().scores[0]->clips[0]->id).center().toPoint();
  timeline.setFocus();
  QTest::mousePress(timeline.viewport(), Qt::LeftButton, {}, from);
  for (const int by : {10, 60, 120}) QTest::mouseMove(timeline.viewport(), from + QPoint(by, 0));
  EXPECT_NE(show(), before);
  QTest::keyClick(&timeline, Qt::Key_Escape);
  EXPECT_EQ(show(), before);
  QTest::mouseRelease(timeline.viewport(), Qt::LeftButton, {}, from);
  EXPECT_EQ(show(), before);
}

/// With a double click on a tool three strips take three drags.
TEST_F(GestureTest, AToolStaysInHandAfterADoubleClickOnIt) {
  document_.start();
  settle();
  auto* line = the<QAbstractButton>("toolLine");
  QTest::mouseClick(line, Qt::LeftButton);
  QTest::mouseDClick(line, Qt::LeftButton);
  for (int n = 0; n < 3; ++n) drag(&plan(), {100, 100.0 + 40 * n}, {300, 100.0 + 40 * n});
  EXPECT_EQ(show().fixtures.size(), 3u);
  EXPECT_EQ(plan().tool(), PlanTool::Line);
  QTest::keyClick(&plan(), Qt::Key_Escape);
  EXPECT_EQ(plan().tool(), PlanTool::Select);
  QTest::mouseClick(line, Qt::LeftButton);
  drag(&plan(), {100, 300}, {300, 300});
  EXPECT_EQ(plan().tool(), PlanTool::Select) << "after a single click it is put down";
}

TEST_F(GestureTest, TheHandToolMovesTheViewWithoutAMiddleButton) {
  plan().setSide(PlanSide::Front);
  plan().setFocus();
  QTest::keyClick(&plan(), Qt::Key_H);
  EXPECT_EQ(plan().tool(), PlanTool::Pan);
  const Show before = show();
  const QPointF there = plan().toPlan({200, 200});
  drag(&plan(), {200, 200}, {260, 170});
  EXPECT_EQ(show(), before);
  EXPECT_NEAR(plan().toPlan({260, 170}).x(), there.x(), 1e-9) << "the plan goes with the pointer";
  EXPECT_NEAR(plan().toPlan({260, 170}).y(), there.y(), 1e-9);
}

TEST_F(GestureTest, ARightClickOffersWhatCanBeDone) {
  plan().setSide(PlanSide::Front);
  const FixtureId one = show().fixtures[2]->id;
  const QStringList onPiece =
      offered([&] { QTest::mouseClick(&plan(), Qt::RightButton, {}, placeOf(one).toPoint()); });
  EXPECT_TRUE(onPiece.contains(QStringLiteral("Duplicate"))) << onPiece.join(", ").toStdString();
  EXPECT_EQ(selection_.fixtures(), FixtureIds{one});
  for (const char* name : {"fixtureList", "zoneList"}) {
    auto* list = the<QAbstractItemView>(name);
    const QModelIndex first = list->model()->index(0, 0);
    const QPoint at = list->visualRect(first).center();
    const QStringList onItem = offered([&] {
      QTest::mouseClick(list->viewport(), Qt::LeftButton, {}, at);
      QContextMenuEvent event(QContextMenuEvent::Mouse, at, list->viewport()->mapToGlobal(at));
      QApplication::sendEvent(list->viewport(), &event);
    });
    EXPECT_TRUE(onItem.contains(QStringLiteral("Rename"))) << name << onItem.join(", ").toStdString();
  }
  window_.showWorkspace(Workspace::Wire);
  settle();
  auto* loom = the<LoomView>("loomView");
  const auto& bead = loom->layoutNow().chains()[0].beads[0];
  const QStringList onBead = offered([&] {
    const QPoint at = bead.box.center().toPoint();
    QContextMenuEvent event(QContextMenuEvent::Mouse, at, loom->mapToGlobal(at));
    QApplication::sendEvent(loom, &event);
  });
  EXPECT_TRUE(onBead.contains(QStringLiteral("Reverse"))) << onBead.join(", ").toStdString();
}

/// Several pieces, chosen in the tray with Ctrl, are hung by one drag, a port each.
TEST_F(GestureTest, SelectedPiecesAreHungOverThePortsByOneDrag) {
  document_.apply(QStringLiteral("bare"), [](Show& s) {
    s.controllers.clear();
    addController(s, 8);
  });
  window_.showWorkspace(Workspace::Wire);
  settle();
  auto* loom = the<LoomView>("loomView");
  const auto chip = [&](std::size_t n) { return loom->layoutNow().chips()[n].box.center().toPoint(); };
  QTest::mouseClick(loom, Qt::LeftButton, {}, chip(0));
  for (const std::size_t n : {1u, 2u}) QTest::mouseClick(loom, Qt::LeftButton, Qt::ControlModifier, chip(n));
  const auto& to = loom->layoutNow().chains()[2];
  drag(loom, chip(1), {to.x, to.top + 20});
  const auto& ports = show().controllers[0]->ports;
  for (const std::size_t port : {2u, 3u, 4u}) EXPECT_EQ(ports[port].run.size(), 1u) << "port " << port + 1;
  EXPECT_EQ(unwiredPieces(show()).size(), show().fixtures.size() - 3);
}

}  // namespace
}  // namespace chispa::desk
