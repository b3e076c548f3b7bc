// SPDX-License-Identifier: GPL-3.0-or-later
// The carousel hung on empty controllers by hand, pushed to four nodes, verified and put back; and each
// fault.
#include "window.h"
#include <QCheckBox>
#include <QComboBox>
#include <QDialog>
#include <QLabel>
#include <QTreeWidget>

#include "core/edit/planedits.h"
#include "core/edit/wireedits.h"
#include "core/files/portsettings.h"
#include "node/interface.h"
#include "node/node.h"

namespace chispa::desk {
namespace {

constexpr int kSetupPort = 18'091;

class HungTest : public WindowTest {
 protected:
  HungTest() {
    EXPECT_TRUE(window_.openFile(QStringLiteral(CHISPA_SOURCE_DIR "/demo/carousel.chispa")));
    window_.resize(1280, 800);
    window_.showWorkspace(Workspace::Wire);
    // The plan is kept, the wiring begins anew.
    while (!show().controllers.empty()) {
      selection_.select(show().controllers[0]->id);
      window_.wirePage().loom().setFocus();
      trigger("delete");
    }
    for (int i = 0; i < 4; ++i) startBox(i);
  }

  void startBox(int i) {
    const std::string address = test::loopbackAddress(10 + i);
    nodes_[i] =
        std::make_unique<node::Node>(node::NodeOptions{"Box " + std::to_string(i + 1), 16, address, {}});
    interfaces_[i] = std::make_unique<node::Interface>(*nodes_[i]);
    std::string why;
    ASSERT_TRUE(nodes_[i]->start(why)) << why;
    ASSERT_TRUE(interfaces_[i]->start(address, kSetupPort, why)) << why;
    press("addController");
    type("controllerName", QStringLiteral("Box %1").arg(i + 1));
    type("host", QString::fromStdString(address));
    setNumber("setupPort", kSetupPort);
    setNumber("portCount", 12);
    if (i % 2 == 1) choose("protocol", QStringLiteral("Art-Net"));
  }

  /// Drags everything from the tray onto the ports, one after the other, and cuts the sign in two.
  void hangAll() {
    LoomView& loom = window_.wirePage().loom();
    for (int port = 0; !loom.layoutNow().chips().empty(); ++port) {
      ASSERT_LT(port, 60) << "a drag did nothing";
      const int place = port * 7 % 48;
      ASSERT_TRUE(loom.findNext(QStringLiteral("Box %1").arg(place / 12 + 1)));
      const auto* now =
          loom.layoutNow().chainOf(show().controllers[static_cast<std::size_t>(place / 12)]->id, place % 12);
      ASSERT_TRUE(now);
      drag(&loom, loom.layoutNow().chips()[0].box.center(),
           {now->x, std::max(now->top + 30, now->bottom + 4)});
    }
  }

  void openDialog() {
    press("compareSetup");
    list_ = the<QTreeWidget>("setupDifferences");
    ASSERT_TRUE(eventually([this] { return isDone(); }));
  }
  bool isDone() const {
    for (int i = 0; i < list_->topLevelItemCount(); ++i)
      if (list_->topLevelItem(i)->text(1).endsWith(QStringLiteral("…"))) return false;
    return true;
  }
  void send() {
    press("sendSetup");
    ASSERT_TRUE(eventually([this] { return isDone(); }));
  }
  void closeDialog() {
    for (auto* dialog : window_.findChildren<QDialog*>()) delete dialog;
  }
  QString resultOf(int box) const { return list_->topLevelItem(box)->text(1); }
  std::vector<PortSettings> settingsOf(int box) const {
    const auto read = parsePortSettings(node::toJson(nodes_[box]->settings()).dump(), "node");
    return read ? *read : std::vector<PortSettings>();
  }
  std::vector<PortSettings> wantedOf(int box) const { return portSettings(show(), derivePatch(show()), box); }

  std::array<std::unique_ptr<node::Node>, 4> nodes_;
  std::array<std::unique_ptr<node::Interface>, 4> interfaces_;
  QTreeWidget* list_ = nullptr;
};

TEST_F(HungTest, TheCarouselIsHungPushedVerifiedAndPutBack) {
  ASSERT_EQ(show().controllers.size(), 4u);
  hangAll();
  ASSERT_TRUE(unwiredPieces(show()).empty());
  // Box 2 had something of its own.
  nodes_[1]->setSettings({{1, "artnet", {{33, "RGB", 0, 5, 1}}}});
  openDialog();
  for (int box = 0; box < 4; ++box)
    EXPECT_TRUE(resultOf(box).contains(QStringLiteral("differ"))) << resultOf(box).toStdString();
  send();
  for (int box = 0; box < 4; ++box) {
    EXPECT_EQ(resultOf(box), QStringLiteral("✓ written and read back"));
    EXPECT_EQ(settingsOf(box), wantedOf(box));
  }
  EXPECT_EQ(the<QLabel>("setupState")->text(), QStringLiteral("Every controller is up to date."));
  // In a later session: what each had before is put back.
  closeDialog();
  openDialog();
  EXPECT_EQ(resultOf(0), QStringLiteral("✓ up to date"));
  the<QComboBox>("setupTarget")->setCurrentIndex(1);
  ASSERT_TRUE(eventually([this] { return isDone(); }));
  EXPECT_TRUE(resultOf(1).contains(QStringLiteral("differ")));
  for (const int box : {0, 2, 3}) list_->topLevelItem(box)->setCheckState(0, Qt::Unchecked);
  send();
  EXPECT_EQ(resultOf(1), QStringLiteral("✓ written and read back"));
  EXPECT_EQ(nodes_[1]->settings().size(), 1u);
  EXPECT_EQ(nodes_[1]->settings()[0].sections[0].pixels, 33);
  EXPECT_EQ(settingsOf(0), wantedOf(0)) << "only the ticked one was written";
}

TEST_F(HungTest, EachFaultOfAPushIsToldAndLeavesNothingHalfKnown) {
  hangAll();
  nodes_[0]->setFaults({.refusesPush = true});
  nodes_[1]->setFaults({.failsAfterPort = 3});
  openDialog();
  nodes_[2]->setFaults({.silent_s = 600});
  send();
  EXPECT_TRUE(resultOf(0).contains(QStringLiteral("refused"))) << resultOf(0).toStdString();
  EXPECT_TRUE(nodes_[0]->settings().empty());
  // The second wrote three ports and then broke off: each port says what it has.
  EXPECT_TRUE(resultOf(1).contains(QStringLiteral("not written"))) << resultOf(1).toStdString();
  QTreeWidgetItem* broken = list_->topLevelItem(1);
  ASSERT_GT(broken->childCount(), 3);
  for (int line = 0; line < broken->childCount(); ++line) {
    const bool isWritten = broken->child(line)->text(0).mid(5).toInt() <= 3;
    EXPECT_TRUE(broken->child(line)->text(1).startsWith(isWritten ? QStringLiteral("✓ written")
                                                                  : QStringLiteral("! has nothing")))
        << broken->child(line)->text(1).toStdString();
  }
  EXPECT_TRUE(resultOf(2).startsWith(QStringLiteral("!"))) << resultOf(2).toStdString();
  EXPECT_EQ(resultOf(3), QStringLiteral("✓ written and read back"));
  EXPECT_TRUE(the<QLabel>("setupState")->text().startsWith(QStringLiteral("3 controllers failed")))
      << the<QLabel>("setupState")->text().toStdString();
  // Once the faults are gone the same dialog finishes the work.
  for (const auto& node : nodes_) node->setFaults({});
  closeDialog();
  openDialog();
  send();
  for (int box = 0; box < 4; ++box) EXPECT_EQ(settingsOf(box), wantedOf(box)) << box;
}

TEST_F(HungTest, FaultsOfTheCableAreSeenOnTheStrips) {
  hangAll();
  openDialog();
  send();
  closeDialog();
  stage_.seek(Micros(54'300'000));
  settle();
  const auto shownNow = [this](int box) { return nodes_[box]->state()["ports"]; };
  stage_.switchLight(true);
  // What the healthy boxes show is what is meant.
  nlohmann::json meant;
  ASSERT_TRUE(eventually([&] {
    meant = shownNow(0);
    return meant.dump().find("#ff") != std::string::npos || meant.dump().find("#e") != std::string::npos;
  }));
  nodes_[0]->setFaults({.hasWrongOrder = true});
  ASSERT_TRUE(eventually([&] { return shownNow(0) != meant; })) << "red and green have changed places";
  // A bad cable loses packets; the repeats bring the light all the same.
  nodes_[0]->setFaults({.drop_percent = 30, .reorder_percent = 20, .delay_ms = 40});
  stage_.player().output().setBlackout(true);
  ASSERT_TRUE(eventually([&] {
    return shownNow(0).dump().find_first_of("123456789abcdef", shownNow(0).dump().find("#")) !=
           std::string::npos;
  }));
  const auto isDark = [&] {
    for (const auto& one : shownNow(0))
      for (const auto& colour : one["shows"])
        if (colour != "#000000") return false;
    return true;
  };
  EXPECT_TRUE(eventually(isDark));
  // A silent box is missed by nobody else.
  nodes_[1]->setFaults({.silent_s = 600});
  stage_.player().output().setBlackout(false);
  nodes_[0]->setFaults({});
  EXPECT_TRUE(eventually([&] { return !isDark(); }));
  stage_.switchLight(false);
  EXPECT_TRUE(eventually(isDark));
}

TEST_F(HungTest, ASetUpIsReadIntoAnEmptyShow) {
  nodes_[0]->setSettings({{1, "e131", {{120, "GRB", 1, 1, 1}}}, {2, "e131", {{44, "RGBW", 0, 9, 1}}}});
  openDialog();
  list_->setCurrentItem(list_->topLevelItem(0));
  press("takeSetup");
  ASSERT_TRUE(eventually([this] { return isDone(); }));
  EXPECT_EQ(wantedOf(0)[0], settingsOf(0)[0]);
  EXPECT_EQ(wantedOf(0)[1], settingsOf(0)[1]);
  EXPECT_TRUE(findNamed(show().fixtures, "Box 1 port 2"));
  trigger("undo");
  EXPECT_FALSE(findNamed(show().fixtures, "Box 1 port 2"));
}

/// The loom's gestures.
TEST_F(HungTest, BeadsAreEchoedSpreadFoldedZoomedAndFound) {
  LoomView& loom = window_.wirePage().loom();
  const auto chipOf = [&](const char* name) {
    for (const auto& chip : loom.layoutNow().chips())
      if (chip.label.startsWith(QLatin1String(name))) return chip.box.center();
    ADD_FAILURE() << name;
    return QPointF();
  };
  const auto dragWith = [&](QPointF from, QPointF to, Qt::KeyboardModifiers held) {
    QTest::mousePress(&loom, Qt::LeftButton, held, from.toPoint());
    QTest::mouseMove(&loom, ((from + to) / 2).toPoint());
    QTest::mouseMove(&loom, to.toPoint());
    QTest::mouseRelease(&loom, Qt::LeftButton, held, to.toPoint());
    QCoreApplication::processEvents();
  };
  const auto hook = [&](std::size_t thread) {
    const auto& t = loom.layoutNow().chains()[thread];
    return QPointF(t.x, t.top + 30);
  };
  dragWith(chipOf("Canopy rim"), hook(0), {});
  ASSERT_EQ(show().controllers[0]->ports[0].run.size(), 1u);
  dragWith(loom.layoutNow().chains()[0].beads[0].box.center(), hook(2), Qt::ControlModifier);
  EXPECT_EQ(show().controllers[0]->ports[2].run.size(), 1u) << "an echo";
  EXPECT_EQ(show().controllers[0]->ports[0].run.size(), 1u);
  // A matrix of five columns takes this and the four ports behind it.
  document_.apply(QStringLiteral("five columns"), [](Show& s) {
    GridShape grid;
    grid.columns = 5;
    grid.rows = 8;
    grid.runs = GridRuns::AlongColumns;
    const FixtureId made = addFixture(s, grid, {});
    changeItem(s.fixtures, made, [](Fixture& f) { f.name = "Five"; });
    // To the front of the tray.
    std::rotate(s.fixtures.begin(), s.fixtures.end() - 1, s.fixtures.end());
  });
  dragWith(chipOf("Five"), hook(3), Qt::ShiftModifier);
  for (std::size_t port = 3; port < 8; ++port) {
    ASSERT_EQ(show().controllers[0]->ports[port].run.size(), 1u) << port;
    EXPECT_EQ(show().controllers[0]->ports[port].run[0].count, 8);
  }
  EXPECT_TRUE(show().controllers[0]->ports[8].run.empty());
  // The wheel shows what lies further in the tray.
  const QPointF tray = loom.layoutNow().tray().center();
  const double leftmost = loom.layoutNow().chips()[0].box.left();
  QWheelEvent turn(tray, loom.mapToGlobal(tray), {}, {0, -120}, Qt::NoButton, Qt::NoModifier,
                   Qt::NoScrollPhase, false);
  QCoreApplication::sendEvent(&loom, &turn);
  EXPECT_LT(loom.layoutNow().chips()[0].box.left(), leftmost);
  // Fold, find (which unfolds), zoom.
  selection_.select(show().controllers[0]->id);
  loom.setFocus();
  const auto threads = loom.layoutNow().chains().size();
  QTest::keyClick(&loom, Qt::Key_F);
  EXPECT_EQ(loom.layoutNow().chains().size(), threads - 12);
  the<QLineEdit>("loomFind")->setFocus();
  QTest::keyClicks(the<QLineEdit>("loomFind"), QStringLiteral("canopy"));
  QTest::keyClick(the<QLineEdit>("loomFind"), Qt::Key_Return);
  EXPECT_EQ(loom.layoutNow().chains().size(), threads);
  EXPECT_EQ(selection_.now(), Selected(BeadPlace{show().controllers[0]->id, 0, 0}));
  QTest::keyClick(the<QLineEdit>("loomFind"), Qt::Key_Return);
  EXPECT_EQ(selection_.now(), Selected(BeadPlace{show().controllers[0]->id, 2, 0}));
  const double before = loom.layoutNow().scale();
  QTest::keyClick(&loom, Qt::Key_Plus);
  EXPECT_GT(loom.layoutNow().scale(), before);
  QTest::keyClick(&loom, Qt::Key_Minus);
  EXPECT_NEAR(loom.layoutNow().scale(), before, 1e-9);
}

TEST_F(HungTest, ABeadIsPoweredAtThePointerAndABudgetHoldsItBack) {
  LoomView& loom = window_.wirePage().loom();
  const auto supplies = show().supplies.size();
  const auto& chip = loom.layoutNow().chips()[0];
  const auto& chain = loom.layoutNow().chains()[0];
  drag(&loom, chip.box.center(), {chain.x, chain.top + 30});
  const auto box = loom.layoutNow().chains()[0].beads[0].box;
  loom.setFocus();
  QTest::mouseMove(&loom, box.center().toPoint());
  QTest::keyClick(&loom, Qt::Key_P);
  QTest::mouseClick(&loom, Qt::LeftButton, {}, box.center().toPoint());
  QCoreApplication::processEvents();
  const ChainPlace place{show().controllers[0]->id, 0, 0};
  ASSERT_EQ(beadAt(show(), place)->injections.size(), 1u);
  EXPECT_NEAR(beadAt(show(), place)->injections[0].pixel, beadAt(show(), place)->count / 2, 2);
  EXPECT_EQ(show().supplies.size(), supplies) << "a supply of its voltage is there";
  setNumber("pin0Metres", 12);
  EXPECT_EQ(beadAt(show(), place)->injections[0].wire_m, 12);
  const auto level = loom.power().levelAt(place, 0);
  ASSERT_TRUE(level);
  EXPECT_LT(level->volts, 5);
  // A budget of a tenth of an ampere, and all white.
  const SupplyId supply = beadAt(show(), place)->injections[0].supply;
  selection_.clear();
  setNumber(("supply-" + std::to_string(supply.value) + "-limit").c_str(), 0.1);
  selection_.select(BeadPlace{place.controller, 0, 0});
  stage_.switchLight(true);
  auto* amps = window_.findChild<QWidget*>(QStringLiteral("pulseBar"));
  ASSERT_TRUE(amps);
  EXPECT_TRUE(eventually([&] {
    for (const auto* button : amps->findChildren<QPushButton*>())
      if (button->text().contains(QStringLiteral("holds the light to"))) return true;
    return false;
  }));
  for (const auto& state : stage_.player().supplies())
    EXPECT_TRUE(state.supply != supply || state.amps <= 0.1 + 1e-4) << state.amps;
  trigger("undo");
  stage_.switchLight(false);
}

TEST_F(HungTest, AScreenShowsItsPortInAWindow) {
  selection_.select(show().controllers[0]->id);
  choose("protocol", QStringLiteral("A screen"));
  LoomView& loom = window_.wirePage().loom();
  const auto& chain = loom.layoutNow().chains()[0];
  drag(&loom, loom.layoutNow().chips()[0].box.center(), {chain.x, chain.top + 30});
  selection_.select(PortChoice{show().controllers[0]->id, 0});
  setNumber("screenColumns", 20);
  setNumber("screenDots", 6);
  stage_.switchLight(true);
  QCoreApplication::processEvents();
  auto* window =
      window_.findChild<QWidget*>(QStringLiteral("screenPort-%1-0").arg(show().controllers[0]->id.value));
  ASSERT_TRUE(window);
  const int pixels = show().controllers[0]->ports[0].run[0].count;
  EXPECT_EQ(window->size(), QSize(20 * 6, (pixels + 19) / 20 * 6));
  // The selected port shines white; the last row is not full and stays black behind it.
  EXPECT_TRUE(eventually([&] { return window->grab().toImage().pixelColor(3, 3) == QColor(Qt::white); }));
  stage_.player().output().setBlackout(true);
  EXPECT_TRUE(eventually([&] { return window->grab().toImage().pixelColor(3, 3) == QColor(Qt::black); }));
  stage_.switchLight(false);
  QCoreApplication::processEvents();
  EXPECT_FALSE(
      window_.findChild<QWidget*>(QStringLiteral("screenPort-%1-0").arg(show().controllers[0]->id.value)));
}

}  // namespace
}  // namespace chispa::desk
