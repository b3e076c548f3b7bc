// SPDX-License-Identifier: GPL-3.0-or-later
// Set lists, the almanac and the night watch through the real window.
#include "runwindow.h"
#include <QCheckBox>
#include <QListWidget>
#include <QMimeData>
#include <QToolButton>
#include <QTreeWidget>

#include "core/edit/lookedits.h"
#include "core/edit/planedits.h"
#include "core/edit/setlistedits.h"
#include "core/edit/wireedits.h"
#include "desk/run/almanacview.h"
#include "desk/run/eveningwindow.h"
#include "desk/run/lookpad.h"
#include "desk/run/nightlogview.h"
#include "desk/run/nightstrip.h"
#include "desk/run/runpage.h"
#include "desk/run/setlistlines.h"
#include "desk/run/setlistpanel.h"
#include "desk/session/nightdesk.h"
#include "node/node.h"

namespace chispa::desk {
namespace {

class NightWindow : public RunWindow {
 protected:
  SetListLines& lines() { return window_.runPage().setLists().lines(); }
  NightDesk& night() { return window_.night(); }
  AlmanacView& almanac() { return window_.runPage().nights().almanac(); }
  void isTime(const char* local, double speed = 1) {
    const auto at = parseLocal(local, *TimeZone::named(show().almanac.zone));
    night().setClock(std::make_unique<engine::RehearsalClock>(*at, speed));
  }
  QString playing() {
    const auto& piece = night().performer().piece();
    return piece ? QString::fromStdString(engine::nameOfPiece(show(), *piece)) : QString();
  }
  /// Lets go of a look's name over the list, at height `y` of it.
  void dropLook(LookId look, int y) {
    QMimeData carried;
    carried.setData(QLatin1String(kLookMime), QByteArray::number(look.value));
    QWidget* on = lines().viewport();
    QDragEnterEvent enter(QPoint(20, y), Qt::CopyAction, &carried, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(on, &enter);
    EXPECT_TRUE(enter.isAccepted());
    QDropEvent drop(QPoint(20, y), Qt::CopyAction, &carried, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(on, &drop);
    QCoreApplication::processEvents();
  }
  const SetList& list() const { return *show().setLists.back(); }
  std::string namesOf(const SetList& list) const {
    std::string names;
    for (const SetListItem& line : list.items) names += nameOfLine(show(), line) + "|";
    return names;
  }
};

TEST_F(NightWindow, ASetListIsMadeByDragAndUndone) {
  trigger("newSetList");
  ASSERT_EQ(show().setLists.size(), 3u);
  dropLook(called("Sea"), 100);
  dropLook(called("Hearth"), 100);
  dropLook(called("Welcome"), 1);
  EXPECT_EQ(namesOf(list()), "Welcome|Sea|Hearth|");
  lines().setFocus();
  lines().setCurrentRow(0);
  QTest::keyClick(&lines(), Qt::Key_Down, Qt::AltModifier);
  EXPECT_EQ(namesOf(list()), "Sea|Welcome|Hearth|");
  // The line is told about in the inspector.
  QTest::mouseClick(lines().viewport(), Qt::LeftButton, {}, lines().visualItemRect(lines().item(2)).center());
  setNumber("lineLength", 7);
  setNumber("lineFade", 1.5);
  choose("lineThen", QStringLiteral("the list ends"));
  EXPECT_EQ(list().items[2].length, Micros(7'000'000));
  EXPECT_EQ(list().items[2].fade, Micros(1'500'000));
  EXPECT_EQ(list().items[2].then, AfterPiece::Stop);
  lines().setFocus();
  QTest::keyClick(&lines(), Qt::Key_Delete);
  EXPECT_EQ(namesOf(list()), "Sea|Welcome|");
  while (document_.canUndo()) document_.undo();
  EXPECT_EQ(show().setLists.size(), 2u);
  QCoreApplication::processEvents();
  EXPECT_EQ(the<QComboBox>("setListChoice")->count(), 3);
}

TEST_F(NightWindow, APadIsDraggedByItsNameAndPlaysAllTheSame) {
  auto* pad = the<LookPad>(QStringLiteral("pad-%1").arg(called("Sea").value).toLatin1().constData());
  const QPoint name(20, pad->height() - 6);
  QTest::mousePress(pad, Qt::LeftButton, {}, name);
  ticks(3);
  EXPECT_FALSE(stage_.live().state.playOf(called("Sea"))) << "not before it is clear that it is no drag";
  QTest::mouseRelease(pad, Qt::LeftButton, {}, name);
  EXPECT_TRUE(eventually([&] { return stage_.live().state.isLit(called("Sea")); }));
}

TEST_F(NightWindow, AListIsPlayedSkippedAndStopped) {
  press("runStart");
  EXPECT_EQ(playing(), "Dusk glow");
  EXPECT_TRUE(eventually([&] { return stage_.live().state.isLit(called("Dusk glow")); }));
  press("setListSkip");
  EXPECT_EQ(playing(), "The Slow Round");
  EXPECT_TRUE(eventually([&] { return stage_.isPlaying() && stage_.position() > Micros(100'000); }));
  EXPECT_TRUE(eventually([&] { return !stage_.live().state.isLit(called("Dusk glow")); }));
  press("setListBack");
  EXPECT_EQ(playing(), "Dusk glow");
  EXPECT_FALSE(stage_.isPlaying());
  lines().setCurrentRow(6);
  lines().setFocus();
  QTest::keyClick(&lines(), Qt::Key_Return);
  EXPECT_EQ(playing(), "Welcome");
  press("runStart");
  EXPECT_EQ(playing(), "");
  EXPECT_TRUE(eventually([&] { return !stage_.live().state.isLit(called("Welcome")); }));
}

TEST_F(NightWindow, AListIsTriedTenTimesAsFast) {
  trigger("newSetList");
  dropLook(called("Sea"), 1);
  dropLook(called("Hearth"), 100);
  document_.apply(QStringLiteral("short"), [id = list().id](Show& s) {
    changeLine(s, id, 0, [](SetListItem& line) { line.length = Micros(5'000'000); });
  });
  trigger("trySetList");
  EXPECT_EQ(playing(), "Sea");
  EXPECT_TRUE(eventually([&] { return playing() == QStringLiteral("Hearth"); }));
  EXPECT_EQ(night().performer().speed(), 10);
  press("runStart");
  EXPECT_EQ(night().performer().speed(), 1) << "what is played next is not fast any more";
}

TEST_F(NightWindow, ARuleIsDrawnOnTheRibbonAndUndone) {
  almanac().setYear(2027);
  ASSERT_TRUE(eventually([&] { return almanac().isFresh(); }));
  const auto x = [&](const char* day) { return almanac().xOf(*parseDate(day)) + 0.3; };
  drag(&almanac(), QPointF(x("2027-04-10"), almanac().yOf(5 * 60)),
       QPointF(x("2027-05-20"), almanac().yOf(10.5 * 60)));
  ASSERT_EQ(show().rules.size(), 5u);
  const Rule& drawn = *show().rules.back();
  EXPECT_EQ(selection_.now(), Selected(drawn.id));
  EXPECT_LE(std::chrono::abs(*parseDate("2027-" + drawn.days.first) - *parseDate("2027-04-10")),
            std::chrono::days(2));
  EXPECT_LE(std::chrono::abs(*parseDate("2027-" + drawn.days.last) - *parseDate("2027-05-20")),
            std::chrono::days(2));
  EXPECT_EQ(drawn.from.kind, NightTimeKind::Clock);
  EXPECT_NEAR(drawn.from.minutes, 17 * 60, 15);
  EXPECT_NEAR(drawn.until.minutes, 22 * 60 + 30, 15);
  ASSERT_TRUE(eventually([&] { return almanac().isFresh(); }));
  // One that begins at dusk.
  const auto plan = NightPlan::of(show());
  const auto dusk = plan->zone().localOf(*plan->nights(*parseDate("2027-10-02"), 1)[0].dusk);
  const double after = std::chrono::duration<double, std::ratio<60>>(dusk.time).count() - 12 * 60;
  drag(&almanac(), QPointF(x("2027-09-20"), almanac().yOf(after)),
       QPointF(x("2027-10-14"), almanac().yOf(11 * 60)));
  ASSERT_EQ(show().rules.size(), 6u);
  EXPECT_EQ(show().rules.back()->from, (NightTime{NightTimeKind::Dusk, 0}));
  while (document_.canUndo()) document_.undo();
  EXPECT_EQ(show().rules.size(), 4u);
}

TEST_F(NightWindow, AClickChoosesARuleAndTellsWhy) {
  almanac().setYear(2027);
  ASSERT_TRUE(eventually([&] { return almanac().isFresh(); }));
  const QPointF at(almanac().xOf(*parseDate("2027-07-10")) + 0.4, almanac().yOf(11 * 60));
  QTest::mouseClick(&almanac(), Qt::LeftButton, {}, at.toPoint());
  EXPECT_EQ(selection_.now(), Selected(findNamed(show().rules, "Fair")->id));
  auto* answers = the<QListWidget>("nightList");
  EXPECT_EQ(answers->item(0)->text(), "Fair evening plays.");
  QTest::mouseClick(the<QToolButton>("ruleWeekday0"), Qt::LeftButton);
  QCoreApplication::processEvents();
  EXPECT_EQ(findNamed(show().rules, "Fair")->days.weekdays, 126);
  type("ruleUntilClock", QStringLiteral("1:15"));
  EXPECT_EQ(findNamed(show().rules, "Fair")->until.minutes, 75);
  QTest::keyClick(&window_, Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(findNamed(show().rules, "Fair")->until.minutes, 30);
}

/// Light goes on by the rule, at the injected time, on the pixels of a simulated controller, and off again.
TEST_F(NightWindow, WatchedTheAlmanacLightsTheNodes) {
  const std::string address = test::loopbackAddress(11);
  node::Node node({"Box", 8, address, {}, {}});
  std::string why;
  ASSERT_TRUE(node.start(why)) << why;
  node.setSettings({{1, "e131", {{4, "RGB", 0, 1, 1}}}});
  document_.start();
  document_.apply(QStringLiteral("a strip"), [&](Show& s) {
    changeItem(s.stripTypes, s.stripTypes.front()->id, [](StripType& strip) { strip.order = "RGB"; });
    const FixtureId strip = addFixture(s, LineShape{4, 0.1}, {});
    const ControllerId box = addController(s, 1);
    changeItem(s.controllers, box, [&](Controller& c) { c.host = address; });
    hang(s, {strip, 0, 4}, {box, 0, 0});
    const LookId look = chispa::addLook(s, "White", {s.zones.front()->id}, "hold", s.palettes.front()->id);
    s.almanac = {"Somewhere", 41.4, 2.2, "Europe/Madrid", {}};
    const RuleId rule = addRule(s, "Evening");
    changeItem(s.rules, rule, [&](Rule& r) {
      r.kind = PieceKind::Look;
      r.look = look;
      r.from = {NightTimeKind::Clock, 21 * 60};
      r.until = {NightTimeKind::Clock, 22 * 60};
    });
  });
  window_.showWorkspace(Workspace::Run);
  settle();
  const auto lit = [&]() -> std::string { return node.state()["ports"][0]["shows"][0]; };
  isTime("2027-07-01T20:59:58");
  press("watchAlmanac");
  ticks(5);
  EXPECT_FALSE(stage_.isLit()) << "not before its time";
  EXPECT_TRUE(eventually([&] { return stage_.isLit() && lit() != "#000000"; })) << lit();
  EXPECT_TRUE(night().tonight().startsWith(QStringLiteral("White until 22:00")))
      << night().tonight().toStdString();
  press("holdTonight");
  EXPECT_TRUE(eventually([&] { return !stage_.isLit() && lit() == "#000000"; }));
  EXPECT_TRUE(night().troubles().contains(QStringLiteral("Light is held off tonight.")));
  press("holdTonight");
  EXPECT_TRUE(eventually([&] { return lit() != "#000000"; }));
  isTime("2027-07-01T21:59:59");
  EXPECT_TRUE(eventually([&] { return !stage_.isLit() && lit() == "#000000"; }));
  EXPECT_TRUE(night().troubles().contains(QStringLiteral("The show is not saved.")));
  press("watchAlmanac");
  EXPECT_FALSE(night().isWatching());
  // The log has it, and shows it.
  trigger("nightLog");
  auto* log = window_.findChild<NightLogView*>();
  ASSERT_TRUE(log);
  auto* events = log->findChild<QTreeWidget*>(QStringLiteral("logEvents"));
  EXPECT_TRUE(eventually([&] { return events->topLevelItemCount() > 3; }));
  EXPECT_EQ(log->findChild<QListWidget*>(QStringLiteral("logNights"))->item(0)->text(), "2027-07-01");
}

TEST_F(NightWindow, TheEveningIsLockedUntilTheKeyIsHeld) {
  trigger("evening");
  auto* evening = window_.findChild<EveningWindow*>();
  ASSERT_TRUE(evening);
  const auto button = [&](const char* name) { return evening->findChild<QPushButton*>(QLatin1String(name)); };
  QTest::mouseClick(button("eveningLock"), Qt::LeftButton);
  EXPECT_TRUE(evening->isLocked());
  QTest::mouseClick(button("eveningLight"), Qt::LeftButton);
  QTest::keyClick(evening, Qt::Key_Escape);
  QTest::keyClick(button("eveningLight"), Qt::Key_Space);
  EXPECT_FALSE(stage_.isLit()) << "a child's hand changes nothing";
  EXPECT_TRUE(evening->isVisible());
  QTest::keyPress(evening, Qt::Key_U);
  ticks(5);
  QTest::keyRelease(evening, Qt::Key_U);
  ticks(5);
  EXPECT_TRUE(evening->isLocked()) << "not for a short press";
  QTest::keyPress(evening, Qt::Key_U);
  EXPECT_TRUE(eventually([&] { return !evening->isLocked(); }));
  QTest::mouseClick(button("eveningLight"), Qt::LeftButton);
  EXPECT_TRUE(stage_.isLit());
  QTest::keyClick(evening, Qt::Key_Escape);
  EXPECT_FALSE(evening->isVisible());
}

TEST_F(NightWindow, WhatIsDeletedIsMissedByTheNight) {
  selection_.select(called("Hearth"));
  window_.runPage().setFocus();
  trigger("delete");
  ASSERT_EQ(lost_.size(), 1u);
  EXPECT_NE(lost_[0].find("line of a set list"), std::string::npos) << lost_[0];
  selection_.select(findNamed(show().setLists, "Fair evening")->id);
  trigger("delete");
  ASSERT_EQ(lost_.size(), 1u);
  EXPECT_NE(lost_[0].find("rule of the almanac"), std::string::npos) << lost_[0];
  document_.undo();
  document_.undo();
  EXPECT_EQ(show().setLists.size(), 2u);
}

TEST_F(NightWindow, ThePlaceIsChosenFromTheCities) {
  trigger("almanacPlace");
  choose("almanacCity", QStringLiteral("Lisbon"));
  EXPECT_EQ(show().almanac.zone, "Europe/Lisbon");
  EXPECT_NEAR(show().almanac.latitude_deg, 38.72, 0.01);
  type("almanacZone", QStringLiteral("Moon/Crater"));
  EXPECT_EQ(show().almanac.zone, "Europe/Lisbon") << "what is no zone changes nothing";
  choose("almanacBetween", QStringLiteral("Quiet rim"));
  EXPECT_EQ(show().almanac.between, called("Quiet rim"));
  while (document_.canUndo()) document_.undo();
  EXPECT_EQ(show().almanac.place, "Lantern Fair ground");
}

}  // namespace
}  // namespace chispa::desk
