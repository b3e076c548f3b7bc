// SPDX-License-Identifier: GPL-3.0-or-later
#include "window.h"
#include <QScreen>
#include <poll.h>

#include "core/colour/srgbtable.h"
#include "core/edit/planedits.h"
#include "core/edit/scoreedits.h"
#include "core/edit/wireedits.h"
#include "core/wire/framerate.h"
#include "node/node.h"

// A screen or projector as a matrix of many pixels, and the same light over a network.

namespace chispa::desk {
namespace {

constexpr int kColumns = 224;
constexpr int kRows = 126;

class BigScreen : public WindowTest {
 protected:
  BigScreen() : node_({"Wall", 1, test::loopbackAddress(12), {}}) {
    std::string why;
    EXPECT_TRUE(node_.start(why)) << why;
    node_.setSettings({{1, "ddp", {{kColumns * kRows, "RGB", 0, 0, 1}}, 512, true}});
    document_.apply(QStringLiteral("build"), [this](Show& s) {
      GridShape grid{kColumns, kRows, 0.01, 0.01};
      grid.serpentine = false;
      grid.start = Corner::TopLeft;
      StripType strip;
      strip.id = s.newId<StripTypeId>();
      strip.order = "RGB";
      put(s.stripTypes, strip);
      const FixtureId wall = addFixture(s, grid, {}, {}, strip.id);
      for (const Protocol protocol : {Protocol::Screen, Protocol::Ddp}) {
        const ControllerId box = addController(s, 1);
        changeItem(s.controllers, box, [protocol](Controller& c) {
          c.protocol = protocol;
          c.host = test::loopbackAddress(12);
          c.dithers = false;
          c.ports[0].screen.columns = kColumns;
          c.ports[0].screen.isFullScreen = true;
        });
        hang(s, {wall, 0, kColumns * kRows}, {box, 0, 0});
        boxes_.push_back(box);
      }
      const PaletteId colours = addPalette(s, "Evening", {{0, {0, 16, 128}}, {1, {255, 180, 0}}});
      score_ = addScore(s, "Still", "", Micros(60'000'000));
      addClip(s, score_, s.zones.front()->id, "ribbon", colours, Micros(0), Micros(60'000'000));
    });
    settle();
    stage_.openScore(score_);
    stage_.seek(Micros(10'000'000));
  }

  node::Node node_;
  std::vector<ControllerId> boxes_;
  ScoreId score_;
};

TEST_F(BigScreen, ShowsFullScreenWhatDdpBringsToAnother) {
  stage_.switchLight(true);
  QCoreApplication::processEvents();
  auto* window = window_.findChild<QWidget*>(QStringLiteral("screenPort-%1-0").arg(boxes_[0].value));
  ASSERT_TRUE(window);
  EXPECT_TRUE(window->isFullScreen());
  EXPECT_EQ(window->size(), window->screen()->size());
  const auto received = [&] { return node_.state()["ports"][0]["shows"]; };
  ASSERT_TRUE(eventually([&] {
    const auto shows = received();
    return shows.size() == std::size_t{kColumns} * kRows && shows[0] != "#000000" &&
           shows.back() != "#000000";
  }));
  const auto shows = received();
  ticks(3);
  const QImage picture = window->grab().toImage();
  const QSizeF dot(static_cast<double>(picture.width()) / kColumns,
                   static_cast<double>(picture.height()) / kRows);
  for (int row = 0; row < kRows; row += 25)
    for (int column = 0; column < kColumns; column += 31) {
      const auto sent = parseHex(shows[static_cast<std::size_t>(row * kColumns + column)].get<std::string>());
      ASSERT_TRUE(sent);
      const SrgbTable& screen = SrgbTable::get();
      const QColor seen = picture.pixelColor(static_cast<int>((column + 0.5) * dot.width()),
                                             static_cast<int>((row + 0.5) * dot.height()));
      // The strip is sent light, the screen what it writes for it; a value is up to half a step off.
      const auto near = [&](int value, std::uint8_t light, const char* what) {
        const int low = screen.value((static_cast<float>(light) - 0.6f) / 255);
        const int high = screen.value((static_cast<float>(light) + 0.6f) / 255);
        EXPECT_GE(value, low) << what << ' ' << column << ' ' << row;
        EXPECT_LE(value, high) << what << ' ' << column << ' ' << row;
      };
      near(seen.red(), sent->r, "red");
      near(seen.green(), sent->g, "green");
      near(seen.blue(), sent->b, "blue");
    }
  stage_.switchLight(false);
}

/// A screen is painted anew by the output's frames, not by the window's own clock.
TEST_F(BigScreen, IsPaintedInStepWithTheOutput) {
  document_.apply(QStringLiteral("faster"), [this](Show& s) {
    changeItem(s.controllers, boxes_[0], [](Controller& c) { c.maxFramesPerSecond = 60; });
  });
  settle();
  stage_.switchLight(true);
  QCoreApplication::processEvents();
  int rings = 0;
  engine::FrameBell& bell = stage_.player().output().bell();
  EXPECT_TRUE(eventually([&] {
    pollfd ready{bell.descriptor(), POLLIN, 0};
    rings += ::poll(&ready, 1, 20) == 1;
    QCoreApplication::processEvents();
    return rings >= 5;
  }));
  EXPECT_EQ(frameRateOf(show(), *chispa::find(show().controllers, boxes_[0])).framesPerSecond(), 60);
  stage_.switchLight(false);
}

}  // namespace
}  // namespace chispa::desk
