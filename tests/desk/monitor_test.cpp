// SPDX-License-Identifier: GPL-3.0-or-later
// What leaves and what arrives, recorded and played back: the window listens to itself.
#include "desk/bench/monitor.h"

#include "window.h"
#include <QLabel>
#include <QListWidget>
#include <QSlider>

#include "core/edit/planedits.h"
#include "core/edit/wireedits.h"
#include "desk/bench/benchpage.h"
#include "desk/bench/faders.h"
#include "desk/bench/signalform.h"
#include "desk/bench/universefield.h"
#include "desk/session/selectionlight.h"

namespace chispa::desk {
namespace {

class MonitorTest : public WindowTest {
 protected:
  MonitorTest() {
    document_.apply(QStringLiteral("build"), [this](Show& s) {
      box_ = addController(s, 2);
      changeItem(s.controllers, box_, [this](Controller& c) {
        c.host = address_;
        c.priority = 120;
      });
      for (int port = 0; port < 2; ++port) {
        const FixtureId id = addFixture(s, port == 0 ? Shape(GridShape{10, 4}) : Shape(LineShape{20}), {});
        hang(s, {id, 0, port == 0 ? 40 : 20}, {box_, port, 0});
      }
    });
    window_.resize(1280, 800);
    window_.showWorkspace(Workspace::Bench);
    bench().choosePort({box_, 0});
    stage_.switchLight(true);
    settle();
  }
  BenchPage& bench() { return window_.benchPage(); }
  std::uint8_t leaves(std::size_t channel) {
    const auto& values = stage_.player().latestValues();
    return channel < values.size() ? values[channel] : std::uint8_t{0};
  }

  std::string address_ = test::loopbackAddress(7);
  ControllerId box_;
};

TEST_F(MonitorTest, WhatLeavesArrivesIsRecordedAndPlayedBack) {
  bench().signalForm().setKind(engine::TestSignal::Kind::Solid);
  bench().signalForm().setLevel(50);
  bench().setSending(true);
  type("listenAddress", QString::fromStdString(address_));
  the<QPushButton>("monitorArriving")->click();
  the<QPushButton>("monitorListen")->click();
  auto* facts = the<QLabel>("monitorFacts");
  ASSERT_TRUE(eventually([&] { return facts->text().contains(QStringLiteral("priority 120")); }))
      << facts->text().toStdString();
  EXPECT_TRUE(facts->text().contains(QStringLiteral("0 gaps")));
  EXPECT_GE(the<QComboBox>("monitorUniverse")->count(), 1);
  const QString file = QString::fromStdString((folder_.path() / "arrived.chirec").string());
  bench().monitor().record(file);
  ASSERT_TRUE(bench().monitor().isRecording()) << facts->text().toStdString();
  QTest::qWait(400);
  bench().signalForm().setLevel(100);
  QTest::qWait(400);
  bench().monitor().record({});
  EXPECT_FALSE(bench().monitor().isRecording());
  bench().setSending(false);
  the<QPushButton>("monitorLeaving")->click();
  ASSERT_TRUE(eventually([this] { return leaves(0) == 0; }));
  bench().monitor().playBack(file);
  ASSERT_TRUE(bench().monitor().isPlayingBack()) << facts->text().toStdString();
  EXPECT_TRUE(eventually([this] { return leaves(0) == 127 || leaves(0) == 128; })) << "half at first";
  EXPECT_TRUE(eventually([this] { return leaves(0) == 255; })) << "then full";
  EXPECT_TRUE(eventually([this] { return !bench().monitor().isPlayingBack() && leaves(0) == 0; }))
      << "it ends by itself";
  bench().monitor().playBack(QStringLiteral("/nowhere/it.chirec"));
  EXPECT_FALSE(bench().monitor().isPlayingBack());
  EXPECT_TRUE(facts->text().contains(QStringLiteral("is not there")));
}

TEST_F(MonitorTest, FadersDriveChannelsAndBecomeAPalette) {
  bench().signalForm().setKind(engine::TestSignal::Kind::Faders);
  bench().setSending(true);
  auto* first = the<QSlider>("fader1");
  first->setFocus();
  QTest::keyClick(first, Qt::Key_End);
  EXPECT_TRUE(eventually([this] { return leaves(0) == 255 && leaves(3) == 0; }));
  the<QComboBox>("faderGroup")->setCurrentIndex(1);
  QTest::keyClick(the<QSlider>("fader2"), Qt::Key_PageUp);
  EXPECT_TRUE(eventually([this] { return leaves(1) == 16 && leaves(4) == 16 && leaves(3) == 0; }))
      << "every third moves together";
  setNumber("signalMost", 20);
  EXPECT_TRUE(eventually([this] { return leaves(0) == 51; })) << "nothing goes above the limit";
  setNumber("signalMost", 100);
  the<QSpinBox>("faderBase")->setValue(33);
  EXPECT_TRUE(eventually([this] { return leaves(0) == 255; })) << "held";
  the<QSpinBox>("faderBase")->setValue(1);
  const std::size_t palettes = show().palettes.size();
  press("fadersPalette");
  ASSERT_EQ(show().palettes.size(), palettes + 1);
  EXPECT_EQ(show().palettes.back()->stops.front().colour, toSrgb8({1, 16 / 255.f, 0}));
  trigger("undo");
  EXPECT_EQ(show().palettes.size(), palettes);
  press("fadersZero");
  EXPECT_TRUE(eventually([this] { return leaves(0) == 0; }));
}

/// The values that leave as the LEDs that they light: one colour all over, where the table has three grounds.
TEST_F(MonitorTest, ValuesAreShownAsLeds) {
  bench().signalForm().setKind(engine::TestSignal::Kind::Solid);
  bench().signalForm().setLevel(100);
  bench().setSending(true);
  ASSERT_TRUE(eventually([&] { return leaves(0) == 255; }));
  auto* monitor = window_.findChild<Monitor*>();
  ASSERT_TRUE(monitor);
  const auto face = [&] {
    ticks(3);
    return monitor->grab().toImage();
  };
  const QImage table = face();
  auto* leds = the<QPushButton>("monitorLeds");
  leds->setFocus();
  QTest::keyClick(leds, Qt::Key_Space);
  EXPECT_TRUE(leds->isChecked());
  const QImage lit = face();
  const auto white = [](const QImage& picture) {
    int count = 0;
    for (int y = 0; y < picture.height(); ++y)
      for (int x = 0; x < picture.width(); ++x) count += qGray(picture.pixel(x, y)) > 245 ? 1 : 0;
    return count;
  };
  EXPECT_NE(table, lit);
  EXPECT_GT(white(lit), 40 * 4) << "forty LEDs shine";
  press("monitorLeds");
  EXPECT_FALSE(leds->isChecked());
}

TEST_F(MonitorTest, AChannelRangeIsDrivenWhateverHangsThere) {
  bench().choose({BenchTarget::Kind::Channels, box_, 0, 0});
  the<QSpinBox>("rigUniverse")->setValue(find(show().controllers, box_)->firstUniverse);
  the<QSpinBox>("rigChannel")->setValue(5);
  the<QSpinBox>("rigPixels")->setValue(2);
  bench().signalForm().setKind(engine::TestSignal::Kind::Solid);
  bench().signalForm().setLevel(100);
  bench().setSending(true);
  EXPECT_TRUE(eventually([this] { return leaves(4) == 255 && leaves(9) == 255; }));
  EXPECT_EQ(leaves(3), 0);
  EXPECT_EQ(leaves(10), 0);
}

TEST_F(MonitorTest, AMatrixShowsRowsColumnsAndTheLetter) {
  bench().signalForm().setKind(engine::TestSignal::Kind::LetterF);
  bench().setSending(true);
  const GridShape grid{10, 4};
  const auto cells = matrixCells(Shape(grid));
  const auto litAt = [&](int column, int row) {
    for (std::size_t i = 0; i < cells.size(); ++i)
      if (cells[i].column == column && cells[i].row == row)
        return i < stage_.frame().size() && stage_.frame().r[i] > 0;
    return false;
  };
  EXPECT_TRUE(eventually([&] { return litAt(0, 0); })) << "the upright reaches down";
  EXPECT_TRUE(litAt(9, 3)) << "the bar along the top";
  EXPECT_FALSE(litAt(9, 0));
  EXPECT_FALSE(litAt(9, 2)) << "the middle bar is shorter";
  setNumber("walkSpeed", 0);
  bench().signalForm().setKind(engine::TestSignal::Kind::ColumnSweep);
  EXPECT_TRUE(eventually([&] { return litAt(0, 0) && litAt(0, 3) && !litAt(1, 0); }));
  bench().signalForm().setKind(engine::TestSignal::Kind::RowSweep);
  EXPECT_TRUE(eventually([&] { return litAt(9, 0) && !litAt(0, 1); }));
}

TEST_F(MonitorTest, TheSelectionBlinksOrPlaysAlone) {
  selection_.select(FixtureIds{show().fixtures[1]->id});
  settle();
  trigger("locate");
  EXPECT_TRUE(eventually([this] { return stage_.frame().r[45] > 0.9f && stage_.frame().r[0] == 0; }));
  EXPECT_TRUE(eventually([this] { return stage_.frame().r[45] == 0; })) << "it blinks";
  trigger("isolate");
  EXPECT_FALSE(the<QAction>("locate")->isChecked());
  bench().choose({BenchTarget::Kind::Controller, box_, 0, 0});
  bench().signalForm().setKind(engine::TestSignal::Kind::Solid);
  bench().setSending(true);
  EXPECT_TRUE(eventually([this] { return stage_.frame().r[45] > 0.2f && stage_.frame().r[0] == 0; }))
      << "only the strip plays";
  trigger("isolate");
  EXPECT_TRUE(eventually([this] { return stage_.frame().r[0] > 0.2f; }));
}

}  // namespace
}  // namespace chispa::desk
