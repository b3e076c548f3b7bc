// SPDX-License-Identifier: GPL-3.0-or-later
// Several zones, beads, ports or controllers, selected and changed at once.
#include "demowindow.h"
#include <QCheckBox>
#include <QHelpEvent>
#include <QListWidget>
#include <QRegularExpression>
#include <QToolTip>

#include "core/edit/planedits.h"
#include "core/edit/wireedits.h"

namespace chispa::desk {
namespace {

class Several : public DemoWindow {
 protected:
  QListWidget& zoneList() { return *the<QListWidget>("zoneList"); }
  void clickZone(int row, Qt::KeyboardModifiers keys = {}) {
    QListWidget& list = zoneList();
    list.scrollToItem(list.item(row));
    QTest::mouseClick(list.viewport(), Qt::LeftButton, keys, list.visualItemRect(list.item(row)).center());
    QCoreApplication::processEvents();
  }
  float levelOf(ZoneId id) const {
    const auto& live = stage_.live();
    return live.state.zoneLevel(id, live.now.t);
  }

  LoomView& loom() { return window_.wirePage().loom(); }
  void click(QPointF at, Qt::KeyboardModifiers keys = {}) {
    QTest::mouseClick(&loom(), Qt::LeftButton, keys, at.toPoint());
    QCoreApplication::processEvents();
  }
  QPointF beadAt(std::size_t chain, std::size_t bead = 0) {
    return loom().layoutNow().chains().at(chain).beads.at(bead).box.center();
  }
  QPointF hookAt(std::size_t chain) {
    return {loom().layoutNow().chains().at(chain).x, loom().layoutNow().beamY() + 10};
  }
  const Controller& controller(std::size_t index) const { return *show().controllers.at(index); }
};

TEST_F(Several, ZonesAreChosenAsInAnyList) {
  clickZone(0);
  EXPECT_EQ(selection_.now(), Selected{show().zones[0]->id});
  clickZone(3, Qt::ShiftModifier);
  EXPECT_EQ(selection_.all<ZoneId>().size(), 4U);
  clickZone(1, Qt::ControlModifier);
  EXPECT_EQ(selection_.all<ZoneId>().size(), 3U);
  EXPECT_FALSE(selection_.has(show().zones[1]->id));
  clickZone(2);
  EXPECT_EQ(selection_.now(), Selected{show().zones[2]->id}) << "one alone is that one";
}

TEST_F(Several, TheLevelOfSixZonesIsSetAtOnce) {
  clickZone(0);
  clickZone(5, Qt::ShiftModifier);
  setNumber("zoneLevel", 40);
  for (std::size_t i = 0; i < 6; ++i) {
    const ZoneId id = show().zones[i]->id;
    EXPECT_TRUE(eventually([&] { return std::abs(levelOf(id) - 0.4F) < 0.01F; })) << i;
  }
  EXPECT_FLOAT_EQ(levelOf(show().zones[6]->id), 1);
}

TEST_F(Several, ZonesAreChangedTogetherAndWhatDiffersIsMixed) {
  clickZone(0);
  setNumber("pixelsPerCell", 4);
  clickZone(1, Qt::ControlModifier);
  auto* number = the<QDoubleSpinBox>("pixelsPerCell");
  EXPECT_EQ(number->text(), QStringLiteral("mixed"));
  const Show before = show();
  number->setFocus();
  QTest::keyClick(number, Qt::Key_Tab);
  EXPECT_EQ(show(), before) << "going through a field changes nothing";
  setNumber("pixelsPerCell", 7);
  EXPECT_EQ(show().zones[0]->pixelsPerCell, 7);
  EXPECT_EQ(show().zones[1]->pixelsPerCell, 7);
  trigger("undo");
  EXPECT_EQ(show(), before) << "one step of undo for both";
}

TEST_F(Several, ZonesAreDeletedTogetherAndComeBack) {
  const std::size_t count = show().zones.size();
  clickZone(0);
  clickZone(2, Qt::ShiftModifier);
  trigger("delete");
  EXPECT_EQ(show().zones.size(), count - 3);
  EXPECT_EQ(selection_.now(), Selected{});
  trigger("undo");
  EXPECT_EQ(show().zones.size(), count);
}

TEST_F(Several, BeadsAreChosenOnTheLoomAndChangedTogether) {
  window_.showWorkspace(Workspace::Wire);
  QCoreApplication::processEvents();
  click(beadAt(0));
  click(beadAt(2), Qt::ShiftModifier);
  const BeadPlaces places = selection_.all<BeadPlace>();
  ASSERT_GE(places.size(), 3U) << "all from the first to the last";
  setNumber("beadBrightness", 50);
  type("beadOrder", QStringLiteral("bgr"));
  for (const BeadPlace& place : places) {
    const Bead& bead = *chispa::beadAt(show(), {place.controller, place.port, place.bead});
    EXPECT_EQ(bead.settings.brightness, 0.5);
    EXPECT_EQ(bead.settings.order, "BGR");
  }
  click(beadAt(1), Qt::ControlModifier);
  EXPECT_EQ(selection_.all<BeadPlace>().size(), places.size() - 1);
  EXPECT_EQ(the<QDoubleSpinBox>("beadBrightness")->value(), 50);
}

TEST_F(Several, BeadsOfOnePortAreRemovedWhereverTheyHang) {
  window_.showWorkspace(Workspace::Wire);
  QCoreApplication::processEvents();
  // Three pieces of one bead, of which the outer two go.
  const ControllerId id = controller(0).id;
  document_.apply(QStringLiteral("cut"), [&](Show& show) {
    cutBead(show, {id, 0, 0}, 40);
    cutBead(show, {id, 0, 1}, 40);
  });
  QCoreApplication::processEvents();
  const Bead middle = controller(0).ports[0].run[1];
  const std::size_t count = controller(0).ports[0].run.size();
  click(beadAt(0, 0));
  click(beadAt(0, 2), Qt::ControlModifier);
  trigger("delete");
  ASSERT_EQ(controller(0).ports[0].run.size(), count - 2);
  EXPECT_EQ(controller(0).ports[0].run[0], middle);
}

TEST_F(Several, PortsTakeTheSameOverrides) {
  window_.showWorkspace(Workspace::Wire);
  QCoreApplication::processEvents();
  click(hookAt(0));
  EXPECT_EQ(selection_.now(), (Selected{PortChoice{controller(0).id, 0}}));
  click(hookAt(3), Qt::ShiftModifier);
  ASSERT_EQ(selection_.all<PortChoice>().size(), 4U);
  setNumber("portBrightness", 30);
  choose("portMark", QStringLiteral("green"));
  for (std::size_t port = 0; port < 4; ++port) {
    EXPECT_EQ(controller(0).ports[port].settings.brightness, 0.3) << port;
    EXPECT_TRUE(controller(0).ports[port].mark) << port;
  }
}

TEST_F(Several, ControllersOfDifferentProtocolsShareWhatTheyHave) {
  selection_.select(ControllerIds{controller(0).id, controller(1).id, controller(2).id});
  document_.apply(QStringLiteral("protocol"), [&](Show& show) {
    changeItem(show.controllers, show.controllers[1]->id,
               [](Controller& one) { one.protocol = Protocol::Ddp; });
  });
  QCoreApplication::processEvents();
  EXPECT_EQ(the<QComboBox>("protocol")->currentIndex(), -1) << "mixed";
  EXPECT_FALSE(window_.findChild<QWidget*>(QStringLiteral("priority"))) << "one of them has none";
  setNumber("delay", 20);
  choose("protocol", QStringLiteral("Art-Net"));
  for (std::size_t i = 0; i < 3; ++i) {
    EXPECT_EQ(controller(i).delay_ms, 20);
    EXPECT_EQ(controller(i).protocol, Protocol::ArtNet);
  }
  EXPECT_TRUE(window_.findChild<QWidget*>(QStringLiteral("delivery"))) << "now all have it";
}

TEST_F(Several, WhatIsUnderThePointerIsTold) {
  window_.showWorkspace(Workspace::Wire);
  QCoreApplication::processEvents();
  const auto tip = [&](QPointF at) {
    QHelpEvent asks(QEvent::ToolTip, at.toPoint(), loom().mapToGlobal(at.toPoint()));
    QCoreApplication::sendEvent(&loom(), &asks);
    return QToolTip::text();
  };
  // The first bead of the first port begins at channel 1; a pixel takes three.
  const QString bead = tip(loom().layoutNow().chains().at(0).beads.at(0).box.topLeft() + QPointF(4, 1));
  static const QRegularExpression form(
      QStringLiteral("^Canopy rim, pixel (\\d+) of 300\nPort 1, address 1 : (\\d+)$"));
  const auto match = form.match(bead);
  ASSERT_TRUE(match.hasMatch()) << bead.toStdString();
  EXPECT_LE(match.captured(1).toInt(), 5) << "near its beginning";
  EXPECT_EQ(match.captured(2).toInt(), 3 * (match.captured(1).toInt() - 1) + 1);
  EXPECT_TRUE(tip(hookAt(1)).startsWith(QStringLiteral("Port 2")));
  EXPECT_TRUE(tip(loom().layoutNow().cards().at(0).box.center())
                  .startsWith(QString::fromStdString(controller(0).name)));
}

}  // namespace
}  // namespace chispa::desk
