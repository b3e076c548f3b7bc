// SPDX-License-Identifier: GPL-3.0-or-later
#include <fstream>

#include "window.h"
#include <QCheckBox>
#include <QLabel>
#include <QListWidget>
#include <QTableWidget>
#include <QTreeWidget>

#include "core/edit/wireedits.h"
#include "core/wire/patch.h"
#include "node/node.h"

namespace chispa::desk {
namespace {

/// The carousel's wiring, changed and printed.
class WireTest : public WindowTest {
 protected:
  WireTest() {
    EXPECT_TRUE(window_.openFile(QStringLiteral(CHISPA_SOURCE_DIR "/demo/carousel.chispa")));
    window_.showWorkspace(Workspace::Wire);
    settle();
  }
  const Controller& box(const std::string& name) const { return *findNamed(show().controllers, name); }
  std::string content(const std::filesystem::path& file) const {
    std::ifstream in(file);
    return {std::istreambuf_iterator<char>(in), {}};
  }
};

TEST_F(WireTest, ABeadSaysOtherwiseThanItsStripType) {
  selection_.select(BeadPlace{box("Rim box").id, 0, 0});
  setNumber("beadBrightness", 40);
  type("beadOrder", QStringLiteral("brg"));
  type("beadGrouping", QStringLiteral("5"));
  const Bead& bead = box("Rim box").ports[0].run[0];
  EXPECT_EQ(bead.settings.brightness, 0.4);
  EXPECT_EQ(bead.settings.order, "BRG");
  EXPECT_EQ(derivePatch(show()).spans[0].count, 34) << "170 pixels, five a value";
  type("beadOrder", QStringLiteral("XYZ"));
  EXPECT_EQ(box("Rim box").ports[0].run[0].settings.order, "BRG") << "nonsense changes nothing";
  the<QLineEdit>("beadOrder")->clear();
  QTest::keyClick(the<QLineEdit>("beadOrder"), Qt::Key_Return);
  EXPECT_FALSE(box("Rim box").ports[0].run[0].settings.order);
}

TEST_F(WireTest, AStartIsPinnedWhereItIsAndMoved) {
  selection_.select(BeadPlace{box("Rim box").id, 1, 0});
  the<QCheckBox>("beadPinned")->click();
  EXPECT_EQ(box("Rim box").ports[1].run[0].fixedStart, (FixedStart{2, 1}));
  setNumber("beadPinChannel", 100);
  const auto spans = derivePatch(show()).spans;
  EXPECT_TRUE(std::any_of(spans.begin(), spans.end(), [](const PatchSpan& s) {
    return s.port == 1 && s.universe == 2 && s.channel == 100;
  }));
  the<QCheckBox>("beadPinned")->click();
  EXPECT_FALSE(box("Rim box").ports[1].run[0].fixedStart);
}

TEST_F(WireTest, ControllersSpeakDdpAndBeadsAreEchoedAndSpread) {
  selection_.select(box("Column box").id);
  the<QCheckBox>("sendsSync")->click();
  EXPECT_TRUE(box("Column box").sendsSync);
  choose("protocol", QStringLiteral("DDP"));
  EXPECT_EQ(box("Column box").protocol, Protocol::Ddp);
  selection_.select(BeadPlace{box("Rim box").id, 0, 0});
  press("echoBead");
  EXPECT_EQ(box("Rim box").ports[1].run.back().fixture, box("Rim box").ports[0].run[0].fixture);
  const Show before = show();
  selection_.select(BeadPlace{box("Booth box").id, 0, 0});
  press("spreadBead");
  EXPECT_EQ(show(), before) << "sixteen rows do not fit on four ports";
}

TEST_F(WireTest, TheSheetIsFilteredAndExported) {
  window_.wirePage().showSheet(true);
  type("sheetFilter", QStringLiteral("post 4, grb"));
  const auto file = folder_.path() / "sheet.csv";
  window_.wirePage().exportSheet(QString::fromStdString(file.string()));
  const std::string csv = content(file);
  EXPECT_EQ(std::count(csv.begin(), csv.end(), '\n'), 2) << csv;
  EXPECT_NE(csv.find("Post box,1,Post 4"), std::string::npos) << csv;
}

TEST_F(WireTest, TheBookletHasAPageAControllerAndTheCuts) {
  const auto file = folder_.path() / "wiring.pdf";
  window_.wirePage().exportBooklet(QString::fromStdString(file.string()));
  const std::string pdf = content(file);
  EXPECT_EQ(pdf.substr(0, 5), "%PDF-");
  EXPECT_NE(pdf.find("/Count 5"), std::string::npos) << "four controllers and the cut list";
  window_.wirePage().exportBooklet(QStringLiteral("/nowhere/wiring.pdf"));
  EXPECT_EQ(told_.size(), 1);
}

/// A node that the show does not know is found, added with its ports, and found at its new address.
TEST_F(WindowTest, AControllerIsFoundAddedAndFollowedToItsNewAddress) {
  node::Node workshop({"Workshop box", 4, test::loopbackAddress(7), {}});
  std::string why;
  ASSERT_TRUE(workshop.start(why)) << why;
  window_.showWorkspace(Workspace::Wire);
  // Loopback has no broadcast: only the controllers of the show are asked there.
  press("addController");
  type("host", QString::fromStdString(test::loopbackAddress(7)));
  type("controllerName", QStringLiteral("Old name"));
  press("findControllers");
  auto* networks = the<QListWidget>("findInterfaces");
  for (int i = 0; i < networks->count(); ++i)
    networks->item(i)->setCheckState(
        networks->item(i)->text().contains(QStringLiteral("127.0.0.1")) ? Qt::Checked : Qt::Unchecked);
  press("findSearch");
  auto* list = the<QTreeWidget>("foundControllers");
  ASSERT_TRUE(eventually([&] { return list->topLevelItemCount() == 1; }));
  ASSERT_TRUE(eventually([&] { return list->topLevelItem(0)->text(2) == QStringLiteral("Art-Net node"); }));
  EXPECT_EQ(list->topLevelItem(0)->text(0), QStringLiteral("Workshop box"));
  EXPECT_EQ(list->topLevelItem(0)->text(5), QStringLiteral("yes, Old name"));
  EXPECT_FALSE(the<QPushButton>("findTake")->isEnabled());
  // It is told apart by its name: the show has it elsewhere now.
  document_.apply(QStringLiteral("elsewhere"), [](Show& s) {
    Controller moved = *s.controllers[0];
    moved.name = "Workshop box";
    moved.host = "127.0.0.99";
    put(s.controllers, moved);
  });
  list->setCurrentItem(nullptr);
  list->setCurrentItem(list->topLevelItem(0));
  EXPECT_EQ(the<QPushButton>("findTake")->text(), QStringLiteral("Use its new address"));
  press("findTake");
  ASSERT_EQ(show().controllers.size(), 1u);
  EXPECT_EQ(show().controllers[0]->host, test::loopbackAddress(7));
  trigger("undo");
  EXPECT_EQ(show().controllers[0]->host, "127.0.0.99");
  ASSERT_TRUE(eventually([&] { return the<QPushButton>("findSearch")->text() == QStringLiteral("Search"); }));
  EXPECT_EQ(the<QLabel>("findState")->text(), QStringLiteral("One controller answered."));
}

}  // namespace
}  // namespace chispa::desk
