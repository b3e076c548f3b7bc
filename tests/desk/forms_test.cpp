// SPDX-License-Identifier: GPL-3.0-or-later
#include "window.h"
#include <QCheckBox>
#include <QLabel>
#include <QListWidget>
#include <QTableWidget>
#include <QTreeWidget>

#include "core/edit/planedits.h"
#include "core/edit/wireedits.h"
#include "desk/bench/benchpage.h"
#include "desk/bench/signalform.h"
#include "node/interface.h"
#include "node/node.h"

namespace chispa::desk {
namespace {

/// The carousel is open, and things are changed through the inspector.
class FormsTest : public WindowTest {
 protected:
  FormsTest() {
    EXPECT_TRUE(window_.openFile(QStringLiteral(CHISPA_SOURCE_DIR "/demo/carousel.chispa")));
    settle();
  }
  const Controller& rimBox() const { return *findNamed(show().controllers, "Rim box"); }
  /// One step of undo takes the last change back.
  void expectOneUndo(const Show& before) {
    trigger("undo");
    EXPECT_EQ(show(), before);
    trigger("redo");
  }
};

TEST_F(FormsTest, ControllerFieldsChangeAddressesLive) {
  selection_.select(rimBox().id);
  const Show before = show();
  setNumber("firstUniverse", 101);
  EXPECT_EQ(derivePatch(show()).universes[0].universe, 101);
  expectOneUndo(before);
  choose("portStart", QStringLiteral("continues"));
  EXPECT_EQ(rimBox().portStart, PortStart::Continue);
  choose("protocol", QStringLiteral("Art-Net"));
  EXPECT_EQ(rimBox().protocol, Protocol::ArtNet);
  setNumber("portCount", 8);
  EXPECT_EQ(rimBox().ports.size(), 8u);
}

TEST_F(FormsTest, AStripTypeReachesAllItsFixtures) {
  selection_.select(FixtureIds{findNamed(show().fixtures, "Rib 1")->id});
  press("editStrip");
  type("stripOrder", QStringLiteral("bgr"));
  EXPECT_EQ(findNamed(show().stripTypes, "Meadow 10 mm")->order, "BGR");
  type("stripOrder", QStringLiteral("RGX"));
  EXPECT_EQ(findNamed(show().stripTypes, "Meadow 10 mm")->order, "BGR") << "nonsense changes nothing";
}

TEST_F(FormsTest, ABeadIsTurnedSkippedCutAndTakenOffWithoutTheMouse) {
  selection_.select(BeadPlace{rimBox().id, 0, 0});
  the<QCheckBox>("beadReversed")->click();
  EXPECT_TRUE(rimBox().ports[0].run[0].reversed);
  setNumber("skippedBefore", 3);
  EXPECT_EQ(rimBox().ports[0].run[0].skippedBefore, 3);
  setNumber("cutAfter", 100);
  press("cutBead");
  ASSERT_EQ(rimBox().ports[0].run.size(), 2u);
  EXPECT_EQ(rimBox().ports[0].run[0].count, 100);
  press("unhang");
  EXPECT_EQ(rimBox().ports[0].run.size(), 1u);
}

TEST_F(FormsTest, APieceIsHungFromThePortsForm) {
  document_.apply(QStringLiteral("take off"), [this](Show& s) { unhang(s, {rimBox().id, 0, 0}); });
  selection_.select(PortChoice{rimBox().id, 5});
  const QByteArray button =
      QStringLiteral("hang-%1").arg(findNamed(show().fixtures, "Canopy rim")->id.value).toUtf8();
  press(button.constData());
  ASSERT_EQ(rimBox().ports[5].run.size(), 1u);
  EXPECT_EQ(rimBox().ports[5].run[0].count, 170);
}

TEST_F(FormsTest, WhatIsBeingTypedSurvivesWhatHappensMeanwhile) {
  window_.showWorkspace(Workspace::Score);
  selection_.select(show().palettes.front()->id);
  QCoreApplication::processEvents();
  auto* name = the<QLineEdit>("paletteName");
  const QString before = name->text();
  window_.activateWindow();
  name->setFocus();
  ASSERT_TRUE(eventually([name] { return name->hasFocus(); }));
  QTest::keyClicks(name, QStringLiteral("x"));
  // Another change of the show lets the form fetch its values anew.
  document_.apply(QStringLiteral("elsewhere"), [](Show& s) { s.name = "Elsewhere"; });
  QCoreApplication::processEvents();
  EXPECT_EQ(name->text(), QStringLiteral("x") + before);
  QTest::keyClick(name, Qt::Key_Return);
  EXPECT_EQ(show().palettes.front()->name, (QStringLiteral("x") + before).toStdString());
  trigger("undo");
  QCoreApplication::processEvents();
  EXPECT_EQ(name->text(), before) << "what is typed no more follows the show again";
}

TEST_F(FormsTest, PaletteStopsAreAddedMovedAndTakenAway) {
  window_.showWorkspace(Workspace::Score);
  const PaletteId moon = findNamed(show().palettes, "Moon")->id;
  selection_.select(moon);
  press("addStop");
  EXPECT_EQ(find(show().palettes, moon)->stops.size(), 5u);
  setNumber("stopAt", 30);
  EXPECT_DOUBLE_EQ(find(show().palettes, moon)->stops[1].at, 0.3);
  QTest::keyClick(the<QWidget>("paletteBar"), Qt::Key_PageUp);
  type("stopColour", QStringLiteral("not a colour"));
  EXPECT_EQ(hexText(find(show().palettes, moon)->stops[0].colour), "#0a1033");
  press("removeStop");
  EXPECT_EQ(find(show().palettes, moon)->stops.size(), 4u);
}

TEST_F(FormsTest, SeveralClipsAreChangedTogetherAndDifferencesShowAsMixed) {
  window_.showWorkspace(Workspace::Score);
  ClipIds ribbons;
  for (const auto& clip : stage_.score()->clips)
    if (clip->effect == "ribbon") ribbons.push_back(clip->id);
  ASSERT_GT(ribbons.size(), 2u);
  selection_.select(ribbons);
  EXPECT_EQ(the<QDoubleSpinBox>("clipStart")->text(), QStringLiteral("mixed"));
  const Show before = show();
  setNumber("param-repeats", 7);
  for (const ClipId id : ribbons)
    EXPECT_EQ(std::get<double>(findClip(*stage_.score(), id)->params.at("repeats")), 7);
  expectOneUndo(before);
  choose("effect", QStringLiteral("Weave"));
  EXPECT_TRUE(the<QDoubleSpinBox>("param-threads")) << "the rows are those of the new effect";
}

TEST_F(FormsTest, AZoneIsMadeOfWhatIsSelected) {
  window_.showWorkspace(Workspace::Plan);
  selection_.select(
      FixtureIds{findNamed(show().fixtures, "Post 1")->id, findNamed(show().fixtures, "Post 2")->id});
  press("makeZone");
  const auto* id = std::get_if<ZoneId>(&selection_.now());
  ASSERT_TRUE(id);
  EXPECT_EQ(find(show().zones, *id)->parts.size(), 2u);
  choose("zoneLayout", QStringLiteral("as strings"));
  EXPECT_EQ(cellsOf(show(), mapPixels(show()), *find(show().zones, *id)).columns, 2);
}

TEST_F(FormsTest, TheAddressSheetHasARowForEachStretch) {
  const auto expectAll = [this] {
    EXPECT_EQ(static_cast<std::size_t>(the<QTableWidget>("addressSheet")->rowCount()),
              derivePatch(show()).spans.size());
  };
  const auto cut = [this](int at) {
    document_.apply(QStringLiteral("cut"), [this, at](Show& s) { cutBead(s, {rimBox().id, 0, 0}, at); });
  };
  window_.showWorkspace(Workspace::Wire);
  press("faceSheet");
  expectAll();
  cut(20);
  expectAll();
  // What changes while another page is seen is there when the sheet is seen again.
  window_.showWorkspace(Workspace::Plan);
  cut(10);
  window_.showWorkspace(Workspace::Wire);
  expectAll();
}

TEST_F(FormsTest, TheBenchWalksByKey) {
  window_.showWorkspace(Workspace::Bench);
  window_.benchPage().choosePort({rimBox().id, 0});
  window_.benchPage().setSending(true);
  ASSERT_TRUE(stage_.signal());
  QTest::keyClick(&window_.benchPage(), Qt::Key_Right);
  QTest::keyClick(&window_.benchPage(), Qt::Key_Right, Qt::ShiftModifier);
  EXPECT_EQ(stage_.signal()->first, 11);
  EXPECT_EQ(stage_.signal()->seconds, 0);
  const int pixel = stage_.compiled()->map->rangeOf(findNamed(show().fixtures, "Canopy rim")->id)->first + 11;
  // Before the first frame there is none.
  EXPECT_TRUE(eventually([&] {
    const auto& reds = stage_.frame().r;
    return static_cast<std::size_t>(pixel) < reds.size() && reds[static_cast<std::size_t>(pixel)] > 0;
  }));
  window_.benchPage().setSending(false);
  EXPECT_FALSE(stage_.signal());
}

TEST_F(FormsTest, RunPlaysInALoopUntilStopped) {
  window_.showWorkspace(Workspace::Run);
  choose("setListChoice", QStringLiteral("Scores"));
  press("runStart");
  EXPECT_TRUE(stage_.isPlaying());
  EXPECT_TRUE(stage_.isLooping());
  press("runStart");
  EXPECT_FALSE(stage_.isPlaying());
}

TEST_F(FormsTest, TheBenchSendsEverySignalAndStaysBelowItsLimit) {
  window_.showWorkspace(Workspace::Bench);
  window_.benchPage().choosePort({rimBox().id, 0});
  window_.benchPage().setSending(true);
  auto* list = the<QListWidget>("benchSignals");
  ASSERT_EQ(list->count(), engine::TestSignal::kKinds + 1) << "and the faders";
  for (int i = 0; i < list->count(); ++i) {
    list->setCurrentRow(i);
    EXPECT_EQ(static_cast<int>(stage_.signal()->kind), i);
  }
  list->setCurrentRow(1);
  setNumber("walkLevel", 100);
  setNumber("signalMost", 20);
  EXPECT_NEAR(stage_.signal()->colour.g, 0.2, 1e-6);
  EXPECT_TRUE(stage_.signal()->target.port);
  window_.benchPage().choose({BenchTarget::Kind::Controller, rimBox().id, 0, 0});
  EXPECT_FALSE(stage_.signal()->target.port);
  window_.benchPage().signalForm().setColour(QColor(255, 0, 0));
  EXPECT_EQ(stage_.signal()->colour.g, 0);
}

TEST_F(FormsTest, TheSetUpIsComparedAndSent) {
  const std::string address = test::loopbackAddress(14);
  node::Node node({"Node", 8, address, {}});
  node::Interface http(node);
  std::string why;
  ASSERT_TRUE(http.start(address, 18'090, why)) << why;
  document_.apply(QStringLiteral("one box"), [&](Show& s) {
    for (const char* name : {"Post box", "Column box", "Booth box"})
      deleteController(s, findNamed(s.controllers, name)->id);
    changeItem(s.controllers, rimBox().id, [&](Controller& c) {
      c.host = address;
      c.setupPort = 18'090;
    });
  });
  window_.showWorkspace(Workspace::Wire);
  press("compareSetup");
  auto* list = the<QTreeWidget>("setupDifferences");
  ASSERT_TRUE(
      eventually([&] { return list->topLevelItemCount() == 1 && list->topLevelItem(0)->childCount() > 0; }));
  EXPECT_EQ(list->topLevelItem(0)->childCount(), 5) << "five ports of the box are in use";
  press("sendSetup");
  ASSERT_TRUE(eventually([&] {
    return list->topLevelItemCount() == 1 &&
           list->topLevelItem(0)->text(1).contains(QStringLiteral("read back"));
  }));
  EXPECT_EQ(node.settings().size(), 6u);
  EXPECT_EQ(node.settings()[0].sections[0].pixels, 170);
}

TEST_F(FormsTest, TheScoresLengthAndNameAreItsOwn) {
  selection_.select(stage_.score()->id);
  type("scoreName", QStringLiteral("Evening"));
  setNumber("scoreLength", 30);
  EXPECT_EQ(stage_.score()->name, "Evening");
  EXPECT_EQ(stage_.score()->length, Micros(30'000'000));
}

}  // namespace
}  // namespace chispa::desk
