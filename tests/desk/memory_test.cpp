// SPDX-License-Identifier: GPL-3.0-or-later
#include <cmath>

#include "capture.h"
#include "window.h"
#include <QLabel>
#include <QListWidget>
#include <QMenu>
#include <QTextDocument>
#include <QToolButton>
#include <QTreeWidget>

#include "core/almanac/sun.h"
#include "core/edit/lookedits.h"
#include "core/edit/planedits.h"
#include "core/edit/wireedits.h"
#include "node/interface.h"

namespace chispa::desk {
namespace {

/// A strip on a controller with a memory of its own, and the dialog that fills it.
class MemoryWindow : public WindowTest {
 protected:
  void start(node::NodeOptions options = {}) {
    options.name = "Box";
    options.listen = address_;
    node_.emplace(std::move(options));
    http_.emplace(*node_);
    std::string why;
    ASSERT_TRUE(node_->start(why)) << why;
    ASSERT_TRUE(http_->start(address_, 8090, why)) << why;
    node_->setSettings({{1, "e131", {{4, "RGB", 0, 1, 1}}}});
    document_.start();
    document_.apply(QStringLiteral("a strip"), [&](Show& s) {
      changeItem(s.stripTypes, s.stripTypes.front()->id, [](StripType& strip) { strip.order = "RGB"; });
      const FixtureId strip = addFixture(s, LineShape{4, 0.1}, {});
      const ControllerId box = addController(s, 1);
      changeItem(s.controllers, box, [&](Controller& c) {
        c.host = address_;
        c.setupPort = 8090;
        c.firstUniverse = 1;
      });
      hang(s, {strip, 0, 4}, {box, 0, 0});
      chispa::addLook(s, "White", {s.zones.front()->id}, "hold", s.palettes.front()->id);
      chispa::addLook(s, "Breath", {s.zones.front()->id}, "swell", s.palettes.front()->id);
      s.almanac = {"Somewhere", 41.4, 2.2, "Europe/Madrid", {}};
    });
    settle();
    trigger("takeToController");
    ASSERT_TRUE(eventually([&] { return the<QDialog>("memoryDialog")->isVisible(); }));
    ASSERT_TRUE(eventually([&] { return the<QLabel>("memoryTold")->text().startsWith("Holds"); }))
        << the<QLabel>("memoryTold")->text().toStdString();
  }
  const ControllerMemory& memory() const { return show().controllers.front()->memory; }

  /// Chooses an entry of a button's menu, as its popup does.
  void pick(const char* button, const QString& entry) {
    QMenu* menu = the<QToolButton>(button)->menu();
    emit menu->aboutToShow();
    for (QAction* action : menu->actions())
      if (action->text().startsWith(entry)) {
        action->trigger();
        return QCoreApplication::processEvents();
      }
    ADD_FAILURE() << "no entry " << entry.toStdString();
  }
  QString state() {
    QTextDocument words;
    words.setHtml(the<QLabel>("memoryState")->text());
    return words.toPlainText();
  }
  bool waitFor(const QString& words) {
    return eventually([&] { return state().contains(words); });
  }
  std::string lit() { return node_->state()["ports"][0]["shows"][0]; }
  void set(const char* field, double value) {
    auto* box = the<QDoubleSpinBox>(field);
    box->setFocus();
    box->selectAll();
    QTest::keyClicks(box, QLocale().toString(value));
    QTest::keyClick(box, Qt::Key_Return);
    QCoreApplication::processEvents();
  }

  std::string address_ = test::loopbackAddress(13);
  std::optional<node::Node> node_;
  std::optional<node::Interface> http_;
};

/// Filled through the window, unplugged from Chispa, a node plays at its own sunset.
TEST_F(MemoryWindow, ANodeIsFilledUnpluggedAndPlaysAtItsSunset) {
  node::NodeOptions options;
  options.clockSpeed = 60;
  start(options);
  EXPECT_TRUE(the<QLabel>("memoryTold")->text().contains("never set"));
  pick("memoryAdd", "White");
  pick("memoryAdd", "Breath");
  ASSERT_EQ(memory().scenes.size(), 2u);
  QTest::keyClick(the<QTreeWidget>("memoryScenes"), Qt::Key_Home);
  press("memoryBegins");
  press("memoryDark");
  ASSERT_EQ(memory().scenes[0].starts.size(), 1u);
  ASSERT_EQ(memory().darkens.size(), 1u);
  type("memoryStartClock", QStringLiteral("23:15"));
  EXPECT_EQ(memory().darkens.front().at.minutes, 23 * 60 + 15);
  ASSERT_TRUE(waitFor(QStringLiteral("✓ fits"))) << state().toStdString();
  EXPECT_GE(the<QTreeWidget>("memoryDifferences")->topLevelItemCount(), 4);
  EXPECT_EQ(the<QTreeWidget>("memoryScenes")->topLevelItem(0)->text(2), "1") << "what stands is one step";
  ASSERT_TRUE(eventually([&] { return the<QPushButton>("memoryWrite")->isEnabled(); }));
  press("memoryWrite");
  ASSERT_TRUE(waitFor(QStringLiteral("✓ Written and checked"))) << state().toStdString();
  EXPECT_FALSE(memory().written.empty());
  // That it was written is an edit, after which all is compared anew: the good word stays.
  ticks(60);
  EXPECT_TRUE(state().contains(QStringLiteral("✓ Written and checked"))) << state().toStdString();
  // Nothing of Chispa is left but what it wrote.
  the<QDialog>("memoryDialog")->close();
  EXPECT_EQ(node_->sceneNames(), (std::vector<std::string>{"White", "Breath"}));
  const auto date = std::chrono::sys_days(std::chrono::year(2026) / 12 / 24);
  const Instant sunset = *sunOn(date, 41.4, 2.2).sunset;
  const auto millis = [](Instant at) {
    return std::chrono::duration_cast<std::chrono::milliseconds>(at.time_since_epoch()).count();
  };
  node_->setClock(millis(sunset - std::chrono::minutes(4)));
  EXPECT_EQ(lit(), "#000000");
  ASSERT_TRUE(eventually([&] { return lit() != "#000000"; }));
  const auto now = node::parseUtc(node_->memory()["clock"]["utc"].get<std::string>());
  ASSERT_TRUE(now);
  EXPECT_NEAR(static_cast<double>(*now - millis(sunset)) / 60'000, 0, 2.5) << "minutes";
  EXPECT_EQ(node_->shownScene(), 1);
  // 23:15 at that place is 22:15 of UTC.
  node_->setClock(millis(Instant(date) + std::chrono::hours(22) + std::chrono::minutes(14)));
  EXPECT_NE(lit(), "#000000") << "switched on in the evening, it plays what was due";
  EXPECT_TRUE(eventually([&] { return lit() == "#000000"; }));
}

TEST_F(MemoryWindow, WhatIsTooMuchIsSaidAndMadeToFit) {
  node::NodeOptions options;
  options.memory->steps = options.memory->stepsOfScene = 100;
  start(options);
  pick("memoryAdd", "Breath");
  set("memoryTolerance", 0);
  ASSERT_TRUE(waitFor(QStringLiteral("It does not fit"))) << state().toStdString();
  EXPECT_TRUE(state().contains(QStringLiteral("of 100"))) << state().toStdString();
  EXPECT_FALSE(the<QPushButton>("memoryWrite")->isEnabled());
  press("memoryFit");
  EXPECT_TRUE(eventually([&] { return memory().tolerance > 0; }));
  ASSERT_TRUE(waitFor(QStringLiteral("✓ fits"))) << state().toStdString();
  const QString steps = the<QTreeWidget>("memoryScenes")->topLevelItem(0)->text(2);
  EXPECT_LE(steps.toInt(), 100);
  EXPECT_GT(steps.toInt(), 1);
  // Undone, the light is as near as it was.
  trigger("undo");
  EXPECT_EQ(memory().tolerance, 0);
  EXPECT_TRUE(waitFor(QStringLiteral("It does not fit")));
}

TEST_F(MemoryWindow, ScenesAndTimesAreEditedAndUndone) {
  start();
  pick("memoryAdd", "White");
  pick("memoryAdd", "Breath");
  set("memoryRounds", 3);
  choose("memoryThen", QStringLiteral("another scene"));
  choose("memoryNext", QStringLiteral("1"));
  EXPECT_EQ(memory().scenes[1].rounds, 3);
  EXPECT_EQ(memory().scenes[1].then, AfterScene::Next);
  EXPECT_EQ(memory().scenes[1].next, 1);
  press("memoryUp");
  EXPECT_EQ(memory().scenes[0].next, 2) << "it names the same scene as before";
  press("memoryBegins");
  ASSERT_EQ(memory().scenes[0].starts.size(), 1u);
  set("memoryContact", 2);
  EXPECT_EQ(memory().scenes[0].starts.front().contact, 2);
  ASSERT_EQ(the<QListWidget>("memoryStarts")->count(), 1);
  EXPECT_TRUE(the<QListWidget>("memoryStarts")->item(0)->text().contains("contact 2"));
  set("memoryContact", 9);
  EXPECT_TRUE(waitFor(QStringLiteral("contact 9, of 4"))) << state().toStdString();
  press("memoryStartRemove");
  EXPECT_TRUE(memory().scenes[0].starts.empty());
  press("memoryRemove");
  EXPECT_EQ(memory().scenes.size(), 1u);
  int undone = 0;
  for (; !memory().scenes.empty() && undone < 20; ++undone) trigger("undo");
  EXPECT_TRUE(memory().scenes.empty());
  for (int i = 0; i < undone; ++i) trigger("redo");
  EXPECT_EQ(memory().scenes.size(), 1u);
  press("memoryAlmanac");
  EXPECT_TRUE(state().contains(QStringLiteral("no rules"))) << state().toStdString();
}

TEST_F(MemoryWindow, WhatGoesWrongIsSaidAndTheOldIsPutBack) {
  start();
  pick("memoryAdd", "White");
  ASSERT_TRUE(waitFor(QStringLiteral("✓ fits"))) << state().toStdString();
  press("memoryWrite");
  ASSERT_TRUE(waitFor(QStringLiteral("✓ Written")));
  pick("memoryAdd", "Breath");
  ASSERT_TRUE(waitFor(QStringLiteral("✓ fits")));
  node::Faults faults;
  faults.powerFailsAfterScene = 2;
  node_->setFaults(faults);
  press("memoryWrite");
  ASSERT_TRUE(waitFor(QStringLiteral("broke off"))) << state().toStdString();
  EXPECT_TRUE(the<QLabel>("memoryTold")->text().contains("nothing whole"));
  EXPECT_EQ(lit(), "#000000");
  // What was there before was kept.
  pick("memoryPutBack", "what it held on");
  ASSERT_TRUE(waitFor(QStringLiteral("✓ Written"))) << state().toStdString();
  EXPECT_EQ(node_->sceneNames(), std::vector<std::string>{"White"});
  press("memoryPlay");
  EXPECT_TRUE(waitFor(QStringLiteral("plays from its memory"))) << state().toStdString();
  EXPECT_TRUE(eventually([&] { return lit() != "#000000"; }));
  // Unplugged, that is said, and the show keeps what was wanted.
  http_.reset();
  press("memoryAsk");
  EXPECT_TRUE(eventually([&] { return the<QLabel>("memoryTold")->text().contains("does not answer"); }));
  EXPECT_EQ(memory().scenes.size(), 2u);
}

TEST_F(MemoryWindow, AControllerWithoutOneSaysSo) {
  node::NodeOptions options;
  options.memory.reset();
  options.name = "Box";
  options.listen = address_;
  node_.emplace(std::move(options));
  http_.emplace(*node_);
  std::string why;
  ASSERT_TRUE(http_->start(address_, 8090, why)) << why;
  document_.start();
  document_.apply(QStringLiteral("a box"), [&](Show& s) {
    const ControllerId box = addController(s, 1);
    changeItem(s.controllers, box, [&](Controller& c) {
      c.host = address_;
      c.setupPort = 8090;
    });
  });
  settle();
  trigger("takeToController");
  EXPECT_TRUE(eventually([&] { return the<QLabel>("memoryTold")->text().contains("no memory of its own"); }));
  EXPECT_FALSE(the<QPushButton>("memoryPlay")->isEnabled());
}

}  // namespace
}  // namespace chispa::desk
