// SPDX-License-Identifier: GPL-3.0-or-later
// Twelve things that makers do every evening, done by hand through the real window, and how many actions each
// takes. An action is a click, a double click, a drag, a key with what is held, or a field that is filled in.
#include "scorewindow.h"
#include <QListWidget>
#include <QSpinBox>
#include <QTableWidget>

#include "core/edit/planedits.h"
#include "core/edit/scoreedits.h"
#include "core/edit/wireedits.h"
#include "desk/frame/actionfinder.h"
#include "desk/frame/spine.h"

namespace chispa::desk {
namespace {

/// Counts what the hands do.
class TwelveTasks : public WindowTest {
 protected:
  void click(QWidget* on, QPointF at, Qt::KeyboardModifiers keys = {}) {
    ++actions_;
    QTest::mouseClick(on, Qt::LeftButton, keys, at.toPoint());
    QCoreApplication::processEvents();
  }
  void click(const char* button) {
    auto* one = the<QAbstractButton>(button);
    ASSERT_TRUE(one->isVisible() && one->isEnabled()) << button;
    click(one, QRectF(one->rect()).center());
  }
  void doubleClick(QWidget* on) {
    ++actions_;
    QTest::mouseClick(on, Qt::LeftButton);
    QTest::mouseDClick(on, Qt::LeftButton);
    QCoreApplication::processEvents();
  }
  void pull(QWidget* on, QPointF from, QPointF to, Qt::KeyboardModifiers keys = {}) {
    ++actions_;
    QTest::mousePress(on, Qt::LeftButton, keys, from.toPoint());
    for (int i = 1; i <= 4; ++i) {
      const QPointF at = from + (to - from) * i / 4;
      QMouseEvent move(QEvent::MouseMove, at, on->mapToGlobal(at), Qt::NoButton, Qt::LeftButton, keys);
      QCoreApplication::sendEvent(on, &move);
    }
    QTest::mouseRelease(on, Qt::LeftButton, keys, to.toPoint());
    QCoreApplication::processEvents();
  }
  void key(int one, Qt::KeyboardModifiers keys = {}, QWidget* on = nullptr) {
    ++actions_;
    QTest::keyClick(on ? on : &window_, static_cast<Qt::Key>(one), keys);
    QCoreApplication::processEvents();
  }
  void fill(QWidget* field, const QString& words) {
    ++actions_;
    ASSERT_TRUE(field->isVisible() && field->isEnabled()) << field->objectName().toStdString();
    field->setFocus(Qt::MouseFocusReason);
    QTest::keyClick(field, Qt::Key_A, Qt::ControlModifier);
    QTest::keyClicks(field, words);
    QTest::keyClick(field, Qt::Key_Return);
    QCoreApplication::processEvents();
  }
  void fill(const char* field, const QString& words) { fill(the<QWidget>(field), words); }

  PlanView& plan() { return window_.planPage().view(); }
  LoomView& loom() { return window_.wirePage().loom(); }
  TimelineView& timeline() { return window_.scorePage().timeline(); }
  /// `before` is what it took when the counting began, in the version of 24 November 2026; nothing where it
  /// could not be done.
  void expectFewer(std::optional<int> before) const {
    RecordProperty("actions", actions_);
    if (!before) return;
    EXPECT_LE(3 * actions_, 2 * *before) << actions_ << " actions, " << *before << " before";
  }

  int actions_ = 0;
};

/// Before: the tool was put down after each strip, so a key and a drag each.
TEST_F(TwelveTasks, TenStrips) {
  doubleClick(the<QAbstractButton>("toolLine"));
  for (int n = 0; n < 10; ++n) pull(&plan(), {100, 80.0 + 30 * n}, {400, 80.0 + 30 * n});
  key(Qt::Key_Escape, {}, &plan());
  EXPECT_EQ(show().fixtures.size(), 10u);
  EXPECT_EQ(plan().tool(), PlanTool::Select);
  expectFewer(20);
}

/// Before: tool, drag, columns, rows, Wire, a controller, a drag onto the port, the bead, where to cut, the
/// cut, a drag onto the next port.
TEST_F(TwelveTasks, AMatrixOnTwoPorts) {
  click("startTemplate2");
  fill(the<QDoubleSpinBox>("columns"), QStringLiteral("24"));
  fill(the<QDoubleSpinBox>("rows"), QStringLiteral("16"));
  ASSERT_EQ(pixelCount(show()), 384);
  key(Qt::Key_2, Qt::ControlModifier);
  ASSERT_FALSE(loom().layoutNow().chains().front().beads.empty());
  click(&loom(), loom().layoutNow().chains().front().beads.front().box.center());
  fill("cutAfter", QStringLiteral("230"));
  click("cutToNextPort");
  const auto& ports = show().controllers.front()->ports;
  ASSERT_EQ(ports.at(0).run.size(), 1u);
  ASSERT_EQ(ports.at(1).run.size(), 1u);
  EXPECT_EQ(ports[0].run[0].count, 230);
  EXPECT_EQ(ports[1].run[0].count, 154);
  expectFewer(11);
}

class TwelveTasksInDemo : public TwelveTasks {
 protected:
  TwelveTasksInDemo() {
    window_.resize(1280, 800);
    EXPECT_TRUE(window_.openFile(QStringLiteral(CHISPA_SOURCE_DIR "/demo/carousel.chispa")));
    settle();
  }
  void clickZone(const std::string& name, Qt::KeyboardModifiers keys = {}) {
    auto* list = the<QListWidget>("zoneList");
    const auto found = list->findItems(QString::fromStdString(name), Qt::MatchStartsWith);
    ASSERT_FALSE(found.empty()) << name;
    list->scrollToItem(found.front());
    click(list->viewport(), list->visualItemRect(found.front()).center(), keys);
  }
};

/// Before: the zone, into what, how many, what they are called, and the button.
TEST_F(TwelveTasksInDemo, TwelveZonesWithNames) {
  const std::size_t before = show().zones.size();
  clickZone("Posts");
  fill("divideName", QStringLiteral("Leg"));
  click("divideZone");
  ASSERT_EQ(show().zones.size(), before + 12);
  EXPECT_EQ(show().zones.back()->name, "Leg 12");
  expectFewer(5);
}

/// Before: a drag for each of the pieces.
TEST_F(TwelveTasksInDemo, TheCarouselIsHung) {
  document_.apply(QStringLiteral("bare"), [](Show& s) {
    const auto all = s.controllers;
    for (const auto& one : all) deleteController(s, one->id);
    addController(s, 64);
  });
  const auto pieces = static_cast<int>(unwiredPieces(show()).size());
  ASSERT_GT(pieces, 20);
  key(Qt::Key_2, Qt::ControlModifier);
  loom().setFocus();
  key(Qt::Key_A, Qt::ControlModifier, &loom());
  const auto& chains = loom().layoutNow().chains();
  pull(&loom(), loom().layoutNow().chips().front().box.center(), {chains.front().x, chains.front().top + 20});
  EXPECT_TRUE(unwiredPieces(show()).empty());
  expectFewer(pieces + 1);
}

/// Before: there was no loop of less than the whole score.
TEST_F(TwelveTasksInDemo, ASectionIsLooped) {
  key(Qt::Key_4, Qt::ControlModifier);
  const Micros from = stage_.score()->length / 4;
  const QPointF ruler(timeline().xOf(from), 8);
  pull(timeline().viewport(), ruler, ruler + QPointF(120, 0), Qt::ShiftModifier);
  ASSERT_TRUE(stage_.part());
  EXPECT_GT(stage_.part()->length.count(), 0);
  expectFewer(std::nullopt);
  EXPECT_LE(actions_, 2);
}

/// Before: a score needed a file of music.
TEST_F(TwelveTasksInDemo, ASilentScoreWithTheLightOfAnother) {
  const std::size_t clips = show().scores.front()->clips.size();
  key(Qt::Key_4, Qt::ControlModifier);
  key(Qt::Key_K, Qt::ControlModifier);
  auto* words = window_.findChild<ActionFinder*>()->findChild<QLineEdit*>();
  answering<QDialog>(
      [this](QDialog& box) {
        auto* like = box.findChild<QComboBox*>(QStringLiteral("silentLike"));
        if (!like) return;
        ++actions_;
        like->setFocus();
        QTest::keyClick(like, Qt::Key_Down);
        ++actions_;
        answer(box, QStringLiteral("OK"));
      },
      [&] { fill(words, QStringLiteral("silent score")); });
  ASSERT_EQ(show().scores.size(), 2u);
  EXPECT_EQ(show().scores.back()->staves, show().scores.front()->staves);
  EXPECT_GT(show().scores.back()->clips.size(), clips / 4) << "32 bars of the demo's";
  EXPECT_LE(actions_, 5);
}

/// Before: snapping was switched off, and on again afterwards.
TEST_F(TwelveTasksInDemo, AClipIsPlacedWithoutSnapping) {
  key(Qt::Key_4, Qt::ControlModifier);
  const auto clip = std::find_if(stage_.score()->clips.begin(), stage_.score()->clips.end(),
                                 [](const auto& one) { return one->effect == "loudness"; });
  ASSERT_NE(clip, stage_.score()->clips.end());
  const ClipId id = (*clip)->id;
  const Micros start = (*clip)->start;
  const QRectF box = timeline().clipBox(id);
  actions_ = 0;
  pull(timeline().viewport(), box.center(), box.center() + QPointF(13, 0), Qt::AltModifier);
  const double off_px = timeline().xOf(findClip(*stage_.score(), id)->start) - timeline().xOf(start);
  EXPECT_NEAR(off_px, 13, 1) << "where it was let go, on no beat";
  expectFewer(3);
}

/// Before: the finder did not find it.
TEST_F(TwelveTasksInDemo, HalfAsManyBeatsAreFound) {
  ASSERT_TRUE(eventually([this] { return stage_.audio() != nullptr; }));
  settle();
  const auto beats = [this] { return laneOf(*stage_.score(), LaneKind::Beats)->marks.size(); };
  const std::size_t before = beats();
  key(Qt::Key_K, Qt::ControlModifier);
  fill(window_.findChild<ActionFinder*>()->findChild<QLineEdit*>(), QStringLiteral("half as many beats"));
  EXPECT_TRUE(eventually([&] { return beats() < before * 6 / 10; })) << beats() << " of " << before;
  EXPECT_LE(actions_, 2);
}

/// Before: a zone had a level for MIDI, OSC and the phone only.
TEST_F(TwelveTasksInDemo, SixZonesTakeALevel) {
  clickZone("Canopy rim");
  const ZoneId first = selection_.all<ZoneId>().front();
  auto* list = the<QListWidget>("zoneList");
  const int row = list->currentRow() + 5;
  click(list->viewport(), list->visualItemRect(list->item(row)).center(), Qt::ShiftModifier);
  fill("zoneLevel", QStringLiteral("40"));
  ASSERT_EQ(selection_.all<ZoneId>().size(), 6u);
  EXPECT_TRUE(eventually([&] {
    const auto& live = stage_.live();
    return std::abs(live.state.zoneLevel(first, live.now.t) - 0.4F) < 0.01F;
  }));
  EXPECT_LE(actions_, 3);
}

/// Before: it was not there.
TEST_F(TwelveTasksInDemo, TheGlowInAWindowOfItsOwn) {
  key(Qt::Key_W, Qt::ControlModifier | Qt::ShiftModifier);
  EXPECT_TRUE(the<QAction>("glowWindow")->isChecked());
  EXPECT_EQ(actions_, 1);
}

/// Before: it was not there.
TEST_F(TwelveTasksInDemo, TheSheetOfShortcuts) {
  key(Qt::Key_F1, Qt::ControlModifier);
  EXPECT_TRUE(the<QTableWidget>("shortcutTable")->isVisible());
  EXPECT_EQ(actions_, 1);
}

}  // namespace
}  // namespace chispa::desk
