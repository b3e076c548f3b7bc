// SPDX-License-Identifier: GPL-3.0-or-later
// A lighting desk plays fixtures: packets written by hand, byte by byte, to the player over real sockets, and
// what a simulated controller then shows.
#include "eventually.h"
#include "handmadedesk.h"
#include "temporary.h"
#include <gtest/gtest.h>

#include "core/edit/deskedits.h"
#include "core/edit/planedits.h"
#include "core/edit/scoreedits.h"
#include "core/edit/wireedits.h"
#include "core/edit/zoneedits.h"
#include "engine/player.h"
#include "node/node.h"

namespace chispa::engine {
namespace {

using namespace std::chrono_literals;

using test::eventually;

/// Twelve lanterns of six pixels, a controller that shows them, a score that lights them white.
class DeskChain : public testing::Test {
 protected:
  static constexpr int kLanterns = 12;

  DeskChain() : address_(test::loopbackAddress(9)), node_({"Lantern box", 1, address_, {}, {}}) {
    std::string why;
    EXPECT_TRUE(node_.start(why)) << why;
    StripType strip;
    strip.id = show_.newId<StripTypeId>();
    strip.order = "RGB";
    strip.response = {1};
    put(show_.stripTypes, strip);
    const ControllerId box = addController(show_, 1);
    changeItem(show_.controllers, box, [this](Controller& c) { c.host = address_; });
    for (int i = 0; i < kLanterns; ++i) {
      const FixtureId lantern = addFixture(show_, ArcShape{6, 0.08, 0, 360}, {0.3 * i, 0, 0});
      hang(show_, {lantern, 0, 6}, {box, 0, i});
    }
    const PaletteId white = addPalette(show_, "White", {{0, {255, 255, 255}}, {1, {255, 255, 255}}});
    score_ = addScore(show_, "S", "", Micros(600'000'000));
    for (const auto& zone : std::vector(show_.zones))
      addClip(show_, score_, zone->id, "hold", white, Micros(0), Micros(600'000'000));
    node_.setSettings({{1, "e131", {{6 * kLanterns, "RGB", 0, 1, 1}}}});
  }
  void listen(DeskUse use, Protocol protocol, int cells) {
    FixtureIds fixtures;
    for (const auto& fixture : show_.fixtures) fixtures.push_back(fixture->id);
    DeskInput first;
    first.protocol = protocol;
    first.universe = 90;
    first.use = use;
    first.lossFade = Micros(200'000);
    listenCollapsed(show_, fixtures, first);
    if (cells == 1) return;
    int channel = 1;
    for (const auto& input : Items<DeskInput>(show_.deskInputs)) {
      changeItem(show_.deskInputs, input->id, [&](DeskInput& d) {
        d.cells = cells;
        d.channel = channel;
      });
      channel += 3 * cells;
    }
  }
  void begin() {
    player_ = std::make_unique<Player>(Player::Options{});
    player_->setShow(show_, compile(show_));
    DeskListener::Options options{address_, 15'568, 16'454};
    const Outcome opened = player_->listenToDesks(options);
    ASSERT_TRUE(opened) << opened.failure().text();
    player_->switchLight(true);
    player_->play(score_, Micros(0), {Micros(0), Micros(600'000'000), true});
    ASSERT_TRUE(eventually([this] { return shown(0) == "#ffffff"; })) << shown(0);
  }
  std::string shown(int pixel) const {
    return node_.state()["ports"][0]["shows"][static_cast<std::size_t>(pixel)];
  }
  using FixtureIds = std::vector<FixtureId>;

  std::string address_;
  node::Node node_;
  Show show_;
  ScoreId score_;
  std::unique_ptr<Player> player_;
  test::HandmadeDesk desk_;
};

/// The desk multiplies the score lantern by lantern; when it stops by a word or in silence, the show returns.
TEST_F(DeskChain, ADeskMultipliesTheScoreStopsAndTheShowReturns) {
  listen(DeskUse::Multiplies, Protocol::E131, 1);
  begin();
  std::vector<std::uint8_t> values(3 * kLanterns);
  for (int i = 0; i < kLanterns; ++i) values[static_cast<std::size_t>(3 * i + i % 3)] = 255;
  const auto send = [&] { desk_.sendE131(address_, 15'568, 90, values); };
  ASSERT_TRUE(eventually(
      [&] { return shown(0) == "#ff0000" && shown(6) == "#00ff00" && shown(66) == "#0000ff"; }, send))
      << shown(0) << shown(6) << shown(66);
  for (int pixel = 0; pixel < 6 * kLanterns; ++pixel) {
    const char* const colours[] = {"#ff0000", "#00ff00", "#0000ff"};
    EXPECT_EQ(shown(pixel), colours[pixel / 6 % 3]) << pixel;
  }
  for (int i = 0; i < 3; ++i) desk_.sendE131(address_, 15'568, 90, values, true);
  EXPECT_TRUE(eventually([&] { return shown(0) == "#ffffff" && shown(66) == "#ffffff"; })) << shown(0);
}

/// Four cells a lantern, in place of the show, over Art-Net.
TEST_F(DeskChain, ADeskPlaysSeveralCellsOfEachFixture) {
  listen(DeskUse::Replaces, Protocol::ArtNet, 3);
  begin();
  std::vector<std::uint8_t> values(512);
  for (int cell = 0; cell < 3 * kLanterns; ++cell) values[static_cast<std::size_t>(3 * cell + 2)] = 255;
  values[0] = 255;
  values[3 * 3 + 1] = 255;
  const auto send = [&] { desk_.sendArtDmx(address_, 16'454, 90, values); };
  ASSERT_TRUE(eventually([&] { return shown(0) == "#ff00ff" && shown(6) == "#00ffff"; }, send))
      << shown(0) << shown(6);
  EXPECT_EQ(shown(1), "#ff00ff") << "two pixels are the first of three cells";
  EXPECT_EQ(shown(2), "#0000ff");
  EXPECT_EQ(shown(5), "#0000ff");
}

/// Of two desks the one with the higher priority counts.
TEST_F(DeskChain, TheDeskOfHigherPriorityCounts) {
  listen(DeskUse::Replaces, Protocol::E131, 1);
  begin();
  std::vector<std::uint8_t> red(36), green(36);
  red[0] = green[1] = 255;
  const auto send = [&] { desk_.sendE131(address_, 15'568, 90, red, false, 150); };
  ASSERT_TRUE(eventually([&] { return shown(0) == "#ff0000"; }, send)) << shown(0);
  // Universes that nobody listens to, and packets that lie, change nothing.
  for (int i = 0; i < 50; ++i) desk_.sendE131(address_, 15'568, 91 + i, green);
  send();
  EXPECT_TRUE(eventually([&] { return shown(0) == "#ff0000"; }, send));
}

}  // namespace
}  // namespace chispa::engine
