// SPDX-License-Identifier: GPL-3.0-or-later
// Slips of the hand: what they must not cost.
#include "carousel/carousel.h"
#include <QListWidget>
#include <QMessageBox>
#include <QSpinBox>

#include "core/edit/planedits.h"
#include "core/edit/scoreedits.h"
#include "core/files/showfile.h"
#include "core/show/limits.h"
#include "desk/score/drawingeditor.h"
#include "desk/window.h"

namespace chispa::desk {
namespace {

class SlipTest : public WindowTest {
 protected:
  SlipTest() {
    EXPECT_TRUE(window_.openFile(QStringLiteral(CHISPA_SOURCE_DIR "/demo/carousel.chispa")));
    window_.resize(1280, 800);
    settle();
  }
  ZoneId zoneCalled(const char* name) const {
    const Zone* zone = findNamed(show().zones, name);
    EXPECT_TRUE(zone) << name;
    return zone ? zone->id : ZoneId{};
  }
  /// Runs `act` while a message box is answered by the button with these words.
  void answering(const QString& words, const std::function<void()>& act) {
    WindowTest::answering<QMessageBox>([&](QMessageBox& box) { answer(box, words); }, act);
  }
};

TEST_F(SlipTest, DeleteActsOnlyOnWhatTheWorkspaceShowsAsSelected) {
  const Show before = show();
  selection_.select(show().controllers[0]->id);
  for (const Workspace seen : {Workspace::Bench, Workspace::Run, Workspace::Plan, Workspace::Score}) {
    window_.showWorkspace(seen);
    QTest::keyClick(&window_, Qt::Key_Delete);
    EXPECT_EQ(show(), before) << static_cast<int>(seen);
  }
  window_.showWorkspace(Workspace::Wire);
  QTest::keyClick(&window_, Qt::Key_Delete);
  EXPECT_EQ(show().controllers.size(), before.controllers.size() - 1);
  ASSERT_FALSE(lost_.empty());
  EXPECT_NE(lost_[0].find("pixels hang"), std::string::npos) << lost_[0];
}

TEST_F(SlipTest, DeleteInTheListOfPartsTakesThePartOut) {
  window_.showWorkspace(Workspace::Plan);
  document_.apply(QStringLiteral("zone"), [](Show& s) {
    Zone zone;
    zone.id = s.newId<ZoneId>();
    zone.name = "Two";
    zone.parts = {{s.fixtures[0]->id, std::nullopt}, {s.fixtures[1]->id, std::nullopt}};
    put(s.zones, zone);
  });
  selection_.select(zoneCalled("Two"));
  auto* list = the<QListWidget>("zoneParts");
  list->setFocus();
  list->setCurrentRow(0);
  QTest::keyClick(list, Qt::Key_Delete);
  const Zone* zone = findNamed(show().zones, "Two");
  ASSERT_TRUE(zone) << "the zone stays";
  ASSERT_EQ(zone->parts.size(), 1u);
  EXPECT_EQ(zone->parts[0].fixture, show().fixtures[1]->id);
}

TEST_F(SlipTest, WhatWouldGoAlongIsSaidFirst) {
  window_.showWorkspace(Workspace::Score);
  selection_.select(show().palettes[0]->id);
  document_.mayLose = [this](const QString&, const Losses& losses) {
    lost_ = losses;
    return false;
  };
  const Show before = show();
  trigger("delete");
  EXPECT_EQ(show(), before) << "it was not wanted";
  ASSERT_FALSE(lost_.empty());
  EXPECT_NE(lost_[0].find("The Slow Round"), std::string::npos) << lost_[0];
  window_.showWorkspace(Workspace::Plan);
  selection_.select(FixtureIds{findNamed(show().fixtures, "Booth sign")->id});
  trigger("delete");
  EXPECT_EQ(show(), before);
  EXPECT_GE(lost_.size(), 2u) << "its port, and the clips on its zone";
}

TEST_F(SlipTest, OneUndoTakesOneThingBack) {
  window_.showWorkspace(Workspace::Plan);
  const ZoneId a = show().zones[0]->id, b = show().zones[1]->id;
  const std::string nameOfA = show().zones[0]->name;
  selection_.select(a);
  type("zoneName", QStringLiteral("Anna"));
  selection_.select(b);
  type("zoneName", QStringLiteral("Bert"));
  trigger("undo");
  EXPECT_EQ(find(show().zones, a)->name, "Anna");
  trigger("undo");
  EXPECT_EQ(find(show().zones, a)->name, nameOfA);
}

TEST_F(SlipTest, StepsOfOneFieldAreOneUndoUntilItIsLeft) {
  window_.showWorkspace(Workspace::Plan);
  const FixtureId rib = findNamed(show().fixtures, "Rib 1")->id;
  selection_.select(FixtureIds{rib});
  QCoreApplication::processEvents();
  auto* field = the<QDoubleSpinBox>("positionX");
  const double before = find(show().fixtures, rib)->place.position_m.x;
  field->setFocus();
  for (int i = 0; i < 3; ++i) QTest::keyClick(field, Qt::Key_Up);
  the<QDoubleSpinBox>("positionY")->setFocus();
  field->setFocus();
  QTest::keyClick(field, Qt::Key_Up);
  const double after = find(show().fixtures, rib)->place.position_m.x;
  EXPECT_GT(after, before);
  trigger("undo");
  EXPECT_GT(find(show().fixtures, rib)->place.position_m.x, before);
  trigger("undo");
  EXPECT_DOUBLE_EQ(find(show().fixtures, rib)->place.position_m.x, before);
}

TEST_F(SlipTest, TabGoesOnWhenAFormIsMadeAnew) {
  window_.showWorkspace(Workspace::Plan);
  selection_.select(FixtureIds{findNamed(show().fixtures, "Booth sign")->id});
  QCoreApplication::processEvents();
  auto* field = the<QDoubleSpinBox>("columns");
  field->setFocus();
  field->selectAll();
  QTest::keyClicks(field, QStringLiteral("40"));
  QTest::keyClick(field, Qt::Key_Tab);
  const QWidget* next = QApplication::focusWidget();
  ASSERT_TRUE(next);
  const QString name = next->objectName();
  QTest::keyClicks(QApplication::focusWidget(), QStringLiteral("1"));
  settle();
  QWidget* now = QApplication::focusWidget();
  ASSERT_TRUE(now) << "the keyboard is somewhere";
  EXPECT_EQ(now->objectName(), name);
  EXPECT_TRUE(now->isVisible());
}

TEST_F(SlipTest, SpacePressesWhatHasTheFocusAndPlaysElsewhere) {
  window_.showWorkspace(Workspace::Score);
  auto* blackout = window_.findChildren<QPushButton*>(QStringLiteral("pulsePart")).front();
  blackout->setFocus();
  QTest::keyClick(blackout, Qt::Key_Space);
  EXPECT_TRUE(blackout->isChecked());
  EXPECT_FALSE(stage_.isPlaying());
  QTest::keyClick(blackout, Qt::Key_Space);
  window_.scorePage().timeline().setFocus();
  QTest::keyClick(&window_.scorePage().timeline(), Qt::Key_Space);
  EXPECT_TRUE(stage_.isPlaying());
  QTest::keyClick(&window_.scorePage().timeline(), Qt::Key_Space);
}

TEST_F(SlipTest, AnEditorFollowsUndoAndGoesWithItsClip) {
  window_.showWorkspace(Workspace::Score);
  const ScoreId score = stage_.score()->id;
  ClipId id;
  document_.apply(QStringLiteral("clip"), [&](Show& s) {
    Clip clip = *find(s.scores, score)->clips.front();
    id = clip.id = s.newId<ClipId>();
    clip.effect = "drawing";
    clip.params = {};
    changeItem(s.scores, score, [&](Score& one) { one.clips.push_back(std::make_shared<const Clip>(clip)); });
  });
  const auto open = [&] {
    selection_.select(ClipIds{id});
    QCoreApplication::processEvents();
    press("param-dots");
    QCoreApplication::processEvents();
    DrawingEditor* found = nullptr;
    for (QWidget* widget : QApplication::topLevelWidgets())
      if (auto* editor = qobject_cast<DrawingEditor*>(widget); editor && editor->isVisible()) found = editor;
    return QPointer<DrawingEditor>(found);
  };
  const auto drawn = [&] { return findClip(*stage_.score(), id)->params; };
  QPointer<DrawingEditor> editor = open();
  ASSERT_TRUE(editor);
  const auto before = drawn();
  auto* columns = editor->findChild<QSpinBox*>(QStringLiteral("dotColumns"));
  const int wide = columns->value();
  columns->setValue(wide + 3);
  EXPECT_NE(drawn(), before);
  trigger("undo");
  EXPECT_EQ(columns->value(), wide) << "it shows what the clip says";
  trigger("redo");
  EXPECT_EQ(columns->value(), wide + 3);
  trigger("delete");
  QCoreApplication::sendPostedEvents(nullptr, QEvent::DeferredDelete);
  EXPECT_TRUE(!editor || !editor->isVisible()) << "the clip is gone";
  trigger("undo");
  editor = open();
  ASSERT_TRUE(editor);
  document_.start();
  QCoreApplication::sendPostedEvents(nullptr, QEvent::DeferredDelete);
  EXPECT_TRUE(!editor || !editor->isVisible()) << "another show is open";
}

TEST_F(SlipTest, AnEditBeyondTheLimitsIsRefusedAndSaid) {
  const Show before = show();
  const bool taken = document_.apply(QStringLiteral("add"), [](Show& s) {
    for (int i = 0; i < 21; ++i) addFixture(s, LineShape{limits::kMaxPixelsOfSegment, 0.01}, {});
  });
  EXPECT_FALSE(taken);
  EXPECT_EQ(show(), before);
  ASSERT_EQ(told_.size(), 1);
  EXPECT_TRUE(told_[0].contains(QStringLiteral("4000000"))) << told_[0].toStdString();
}

TEST_F(SlipTest, AFileThatSomebodyElseChangedIsAskedAbout) {
  const auto path = folder_.path() / "fair.chispa";
  ASSERT_TRUE(saveShow(path, show()));
  ASSERT_TRUE(window_.openFile(QString::fromStdString(path.string())));
  document_.apply(QStringLiteral("name"), [](Show& s) { s.name = "Mine"; });
  Show theirs = show();
  theirs.name = "Theirs, and longer";
  ASSERT_TRUE(saveShow(path, theirs));
  answering(QStringLiteral("Cancel"), [&] { trigger("saveShow"); });
  EXPECT_EQ(loadShow(path)->name, "Theirs, and longer");
  EXPECT_TRUE(document_.isModified());
  answering(QStringLiteral("Replace it"), [&] { trigger("saveShow"); });
  EXPECT_EQ(loadShow(path)->name, "Mine");
  document_.apply(QStringLiteral("name"), [](Show& s) { s.name = "Again"; });
  trigger("saveShow");
  EXPECT_EQ(loadShow(path)->name, "Again") << "what it wrote itself is not asked about";
}

TEST_F(SlipTest, AShowThatIsOpenInAnotherWindowIsSaid) {
  const auto path = folder_.path() / "fair.chispa";
  ASSERT_TRUE(saveShow(path, show()));
  Document other(folder_.path() / "state");
  ASSERT_TRUE(other.open(path));
  ASSERT_TRUE(window_.openFile(QString::fromStdString(path.string())));
  ASSERT_EQ(told_.size(), 1);
  EXPECT_TRUE(told_[0].contains(QStringLiteral("another window")));
  Document third(folder_.path() / "state");
  const Outcome saved = third.saveAs(path);
  ASSERT_FALSE(saved);
  EXPECT_NE(saved.failure().what.text().find("another window"), std::string::npos);
}

TEST_F(SlipTest, WorkThatIsNotSafeIsSaidInThePulseBarUntilItIs) {
  auto* bar = window_.findChild<QWidget*>(QStringLiteral("pulseBar"));
  const auto says = [&](const QString& words) {
    for (const QPushButton* part : bar->findChildren<QPushButton*>())
      if (part->accessibleName().contains(words)) return true;
    return false;
  };
  EXPECT_FALSE(says(QStringLiteral("not safe")));
  // The folder of journals becomes a file: nothing can be begun in it.
  const auto state = folder_.path() / "other-state";
  std::ofstream(state) << "in the way";
  Document document(state);
  EXPECT_FALSE(document.journalTrouble().isEmpty());
  std::filesystem::remove(state);
  EXPECT_TRUE(eventually([&] { return document.journalTrouble().isEmpty(); }))
      << "it is tried again by itself";
}

}  // namespace
}  // namespace chispa::desk
