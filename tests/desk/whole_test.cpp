// SPDX-License-Identifier: GPL-3.0-or-later
#include "capture.h"
#include "scorewindow.h"
#include <QCheckBox>
#include <QListWidget>
#include <QMenu>
#include <QToolButton>
#include <QTreeWidget>

#include "core/edit/planedits.h"
#include "core/edit/wireedits.h"
#include "core/zone/cells.h"
#include "link/setupstore.h"
#include "node/interface.h"

namespace chispa::desk {
namespace {

TEST_F(ScoreWindowTest, APaletteIsTurnedByHandAndTurnsWithTheMusic) {
  const ClipId id = score().clips.front()->id;
  const auto clip = [&]() -> const Clip& { return *chispa::find(score().clips, id); };
  selection_.select(ClipIds{id});
  setNumber("paletteShift", 25);
  setNumber("paletteTurns", 0.5);
  EXPECT_EQ(clip().paletteShift, 0.25);
  EXPECT_EQ(clip().paletteTurns, 0.5);
  trigger("undo");
  EXPECT_EQ(clip().paletteTurns, 0);
  setNumber("strength", 40);
  EXPECT_EQ(clip().strength, 0.4);
}

/// Four panels that hang two by two become one picture.
TEST_F(WindowTest, PanelsAreJoinedToOnePicture) {
  document_.start();
  ZoneId wall;
  document_.apply(QStringLiteral("four panels"), [&](Show& s) {
    Zone zone;
    for (int i = 0; i < 4; ++i) {
      const FixtureId panel =
          addFixture(s, GridShape{8, 8, 0.01, 0.01}, {0.08 * (i % 2), 0.08 * (i < 2 ? 1 : 0), 0});
      ZonePart part;
      part.fixture = panel;
      zone.parts.push_back(part);
    }
    zone.id = wall = s.newId<ZoneId>();
    zone.name = "Wall";
    zone.layout = ZoneLayout::SideBySide;
    put(s.zones, zone);
  });
  settle();
  const auto size = [&] {
    const ZoneCells cells = cellsOf(show(), mapPixels(show()), *chispa::find(show().zones, wall));
    return std::pair(cells.columns, cells.rows);
  };
  EXPECT_EQ(size(), std::pair(32, 8));
  selection_.select(wall);
  choose("zoneLayout", QStringLiteral("as one picture"));
  EXPECT_EQ(size(), std::pair(16, 16));
  setNumber("panelsAcross", 4);
  EXPECT_EQ(size(), std::pair(32, 8));
  setNumber("panelsAcross", 0);
  EXPECT_EQ(size(), std::pair(16, 16)) << "as they hang";
  the<QCheckBox>("countsGaps")->click();
  EXPECT_TRUE(chispa::find(show().zones, wall)->countsGaps);
  for (int i = 0; i < 4 && chispa::find(show().zones, wall)->layout == ZoneLayout::Panels; ++i)
    trigger("undo");
  EXPECT_EQ(size(), std::pair(32, 8));
}

TEST_F(WindowTest, BrightnessOfAllPortsIsSetInOneGo) {
  EXPECT_TRUE(window_.openFile(QStringLiteral(CHISPA_SOURCE_DIR "/demo/carousel.chispa")));
  settle();
  selection_.clear();
  setNumber("allBrightness", 60);
  for (const auto& controller : show().controllers)
    for (const Port& port : controller->ports) EXPECT_EQ(port.settings.brightness, 0.6);
  trigger("undo");
  EXPECT_FALSE(show().controllers.front()->ports.front().settings.brightness);
}

TEST_F(WindowTest, AControllerIsToldToBeAhead) {
  EXPECT_TRUE(window_.openFile(QStringLiteral(CHISPA_SOURCE_DIR "/demo/carousel.chispa")));
  settle();
  const ControllerId id = show().controllers.front()->id;
  selection_.select(id);
  setNumber("delay", -150);
  EXPECT_EQ(chispa::find(show().controllers, id)->delay_ms, -150);
  setNumber("delay", -900);
  EXPECT_EQ(chispa::find(show().controllers, id)->delay_ms, -500) << "no further than half a second";
}

/// Which of the kept set-ups is put back is chosen by its date, and what differs is shown for it.
TEST_F(WindowTest, AnOlderSetUpIsPutBack) {
  const std::string address = test::loopbackAddress(12);
  node::Node node({"Box", 8, address, {}});
  node::Interface http(node);
  std::string why;
  ASSERT_TRUE(http.start(address, 18'091, why)) << why;
  document_.start();
  document_.apply(QStringLiteral("a box"), [&](Show& s) {
    const FixtureId strip = addFixture(s, LineShape{30, 0.1}, {});
    const ControllerId box = addController(s, 2);
    changeItem(s.controllers, box, [&](Controller& c) {
      c.host = address;
      c.setupPort = 18'091;
    });
    hang(s, {strip, 0, 30}, {box, 0, 0});
  });
  settle();
  const auto kept = [&](int pixels) {
    const PortSettings port{1, Protocol::E131, {{pixels, "GRB", 0, 1, 1}}};
    return toJson(std::vector{port}).dump();
  };
  const auto store = link::SetupStore::ofUser();
  ASSERT_TRUE(store.keep(*show().controllers.front(), kept(11)));
  std::this_thread::sleep_for(std::chrono::milliseconds(5));
  ASSERT_TRUE(store.keep(*show().controllers.front(), kept(22)));
  window_.showWorkspace(Workspace::Wire);
  press("compareSetup");
  auto* list = the<QTreeWidget>("setupDifferences");
  const auto isAsked = [&] {
    return list->topLevelItemCount() == 1 &&
           list->topLevelItem(0)->text(1).contains(QStringLiteral("differ"));
  };
  ASSERT_TRUE(eventually(isAsked));
  auto* target = the<QComboBox>("setupTarget");
  target->setCurrentIndex(1);
  ASSERT_TRUE(eventually(isAsked));
  auto* choice = the<QComboBox>("keptSetup");
  ASSERT_EQ(choice->count(), 2);
  EXPECT_TRUE(choice->itemText(0).contains(QStringLiteral("22 pixels"))) << "the newest first";
  choice->setCurrentIndex(1);
  ASSERT_TRUE(eventually([&] {
    return isAsked() && list->topLevelItem(0)->childCount() == 1 &&
           list->topLevelItem(0)->child(0)->text(3).contains(QStringLiteral("11 px"));
  }));
  press("sendSetup");
  ASSERT_TRUE(
      eventually([&] { return list->topLevelItem(0)->text(1).contains(QStringLiteral("read back")); }));
  ASSERT_EQ(node.settings().size(), 1u);
  EXPECT_EQ(node.settings()[0].sections[0].pixels, 11);
}

/// A strip's white is set by hand, told what it costs, and kept for the next show.
TEST_F(WindowTest, AStripsWhiteIsSetByHandAndKeptForAllShows) {
  qputenv("XDG_DATA_HOME", QByteArray::fromStdString((folder_.path() / "data").string()));
  EXPECT_TRUE(window_.openFile(QStringLiteral(CHISPA_SOURCE_DIR "/demo/carousel.chispa")));
  settle();
  selection_.clear();
  auto* list = the<QListWidget>("stripTypes");
  ASSERT_EQ(static_cast<std::size_t>(list->count()), show().stripTypes.size());
  EXPECT_TRUE(list->item(0)->text().contains(QStringLiteral("fixture")));
  QTest::mouseClick(list->viewport(), Qt::LeftButton, {}, list->visualItemRect(list->item(0)).center());
  QCoreApplication::processEvents();
  const auto* chosen = std::get_if<StripTypeId>(&selection_.now());
  ASSERT_TRUE(chosen);
  const StripTypeId id = *chosen;
  const auto strip = [&]() -> const StripType& { return *chispa::find(show().stripTypes, id); };
  setNumber("stripKelvin", 2'700);
  EXPECT_LT(strip().white.b, 0.5f);
  EXPECT_EQ(strip().white.r, 1);
  setNumber("stripWhiteGreen", 50);
  EXPECT_EQ(strip().white.g, 0.5f);
  type("stripName", QStringLiteral("Warm reel"));
  // Fixtures are made of it: it stays.
  const std::size_t types = show().stripTypes.size();
  press("deleteStrip");
  EXPECT_EQ(show().stripTypes.size(), types);
  press("keepStrip");
  // In the next show it is offered, and one that nothing is made of can be deleted.
  document_.start();
  settle();
  selection_.clear();
  QMenu* own = the<QToolButton>("ownStrips")->menu();
  emit own->aboutToShow();
  ASSERT_EQ(own->actions().size(), 1);
  own->actions().front()->trigger();
  QCoreApplication::processEvents();
  ASSERT_TRUE(findNamed(show().stripTypes, "Warm reel"));
  EXPECT_EQ(findNamed(show().stripTypes, "Warm reel")->white.g, 0.5f);
  const std::size_t before = show().stripTypes.size();
  press("deleteStrip");
  EXPECT_EQ(show().stripTypes.size(), before > 1 ? before - 1 : 1);
  qunsetenv("XDG_DATA_HOME");
}

TEST_F(ScoreWindowTest, AColourOfAPaletteIsAWhite) {
  const PaletteId id = show().palettes.front()->id;
  selection_.select(id);
  setNumber("stopKelvin", 3'000);
  const Srgb8 colour = chispa::find(show().palettes, id)->stops.front().colour;
  EXPECT_EQ(colour.r, 255);
  EXPECT_GT(colour.g, colour.b);
  EXPECT_GT(colour.b, 60);
}

}  // namespace
}  // namespace chispa::desk
