// SPDX-License-Identifier: GPL-3.0-or-later
// The player on a clock of the test's own, with a sound that does what it is told: no time passes here.
#include "engine/player.h"

#include <gtest/gtest.h>

#include "core/edit/planedits.h"
#include "core/edit/scoreedits.h"
#include "core/edit/wireedits.h"
#include "core/render/compiled.h"
#include "engine/handclock.h"

namespace chispa::engine {
namespace {

using namespace std::chrono_literals;

/// What a fake sound was told, and what it answers.
struct SoundScript {
  std::vector<Micros> played;
  int stopped = 0;
  int reopened = 0;
  bool isLost = false;
  bool comesBack = false;
  /// What is heard after `startsAfter` of the clock, at `rate` of it, and `jump` further on.
  MonoTime startsAfter{0};
  double rate = 1;
  Micros jump{0};
  MonoTime begunAt{-1};
  std::vector<Micros> touched = {};
};

class FakeSound final : public Sound {
 public:
  FakeSound(std::shared_ptr<HandClock> clock, std::shared_ptr<SoundScript> script)
      : clock_(std::move(clock)), script_(std::move(script)) {}
  void play(std::shared_ptr<const AudioClip>, Micros from) override {
    script_->played.push_back(from);
    script_->begunAt = clock_->now();
  }
  void follow(std::shared_ptr<const AudioClip>, Micros) override {}
  void touch(std::shared_ptr<const AudioClip>, Micros at) override { script_->touched.push_back(at); }
  void stop() override {
    ++script_->stopped;
    script_->begunAt = MonoTime(-1);
  }
  std::optional<Micros> heard() override {
    if (script_->isLost || script_->begunAt < MonoTime(0)) return std::nullopt;
    const MonoTime since = clock_->now() - script_->begunAt - script_->startsAfter;
    if (since <= MonoTime(0)) return std::nullopt;
    return script_->played.back() +
           Micros(static_cast<std::int64_t>(static_cast<double>(since.count()) / 1000 * script_->rate)) +
           script_->jump;
  }
  bool isLost() const override { return script_->isLost; }
  bool isSilent() const override { return script_->isLost; }
  bool reopen() override {
    ++script_->reopened;
    if (script_->comesBack) script_->isLost = false;
    return !script_->isLost;
  }
  std::string description() const override { return "a fake"; }

 private:
  std::shared_ptr<HandClock> clock_;
  std::shared_ptr<SoundScript> script_;
};

class PlayerByHand : public testing::Test {
 protected:
  PlayerByHand() {
    Player::Options options;
    options.clock = clock_;
    options.runsThreads = false;
    options.sound = std::make_unique<FakeSound>(clock_, script_);
    player_ = std::make_unique<Player>(std::move(options));
    addFixture(show_, LineShape{6, 0.1}, {});
    score_ = addScore(show_, "S", "", Micros(60'000'000));
    player_->setShow(show_, compile(show_));
    auto clip = std::make_shared<AudioBuffer>();
    clip->samples.resize(std::size_t{60} * AudioClip::kRate * AudioClip::kChannels);
    player_->setSound(clip);
  }
  void play(Micros from = Micros(0), PlayedPart part = {Micros(0), Micros(60'000'000), false}) {
    player_->play(score_, from, part);
  }
  void pass(MonoTime time) {
    for (MonoTime gone{0}; gone < time; gone += 25ms) {
      clock_->pass(25ms);
      player_->advance();
    }
  }
  double position_s() const { return seconds(player_->position()); }

  std::shared_ptr<HandClock> clock_ = std::make_shared<HandClock>();
  std::shared_ptr<SoundScript> script_ = std::make_shared<SoundScript>();
  Show show_;
  ScoreId score_;
  std::unique_ptr<Player> player_;
};

TEST_F(PlayerByHand, LightFollowsASoundThatDrifts) {
  script_->rate = 1.001;
  play();
  pass(40s);
  EXPECT_NEAR(position_s(), 40 * 1.001, 0.012) << "the sound's place counts, not the clock's";
}

TEST_F(PlayerByHand, ScrubbingIsHeardOnlyWhileNothingPlays) {
  player_->scrub(score_, Micros(10'000'000));
  player_->scrub(score_, Micros(10'500'000));
  EXPECT_EQ(script_->touched, (std::vector{Micros(10'000'000), Micros(10'500'000)}));
  EXPECT_NEAR(position_s(), 10.5, 1e-6);
  const int stopped = script_->stopped;
  player_->hush();
  EXPECT_EQ(script_->stopped, stopped + 1);
  play(Micros(1'000'000));
  pass(1s);
  player_->scrub(score_, Micros(20'000'000));
  player_->hush();
  EXPECT_EQ(script_->touched.size(), 2u);
  EXPECT_EQ(script_->played.back(), Micros(20'000'000)) << "it plays on from there";
  EXPECT_EQ(script_->stopped, stopped + 1);
}

TEST_F(PlayerByHand, ScrubbingCountsFromWhereTheSoundBegins) {
  player_->setSound(
      [] {
        auto clip = std::make_shared<AudioBuffer>();
        clip->samples.resize(std::size_t{4} * AudioClip::kRate * AudioClip::kChannels);
        return clip;
      }(),
      {Micros(2'000'000), 2});
  player_->scrub(score_, Micros(1'000'000));
  player_->scrub(score_, Micros(6'000'000));
  player_->scrub(score_, Micros(11'000'000));
  EXPECT_EQ(script_->touched, std::vector{Micros(2'000'000)}) << "before and behind it is silent";
}

TEST_F(PlayerByHand, LightStandsStillUntilTheSoundIsHeard) {
  script_->startsAfter = 180ms;
  play(Micros(5'000'000));
  pass(150ms);
  EXPECT_EQ(player_->position(), Micros(5'000'000));
  pass(850ms);
  EXPECT_NEAR(position_s(), 5 + 0.82, 0.03);
}

TEST_F(PlayerByHand, ASoundThatNeverBeginsDoesNotHoldTheLightUp) {
  script_->startsAfter = 1h;
  play();
  pass(400ms);
  EXPECT_EQ(player_->position(), Micros(0));
  pass(2s);
  EXPECT_NEAR(position_s(), 1.9, 0.06) << "after half a second the clock counts";
}

TEST_F(PlayerByHand, ASoundThatJumpsTakesTheLightAlong) {
  play();
  pass(2s);
  script_->jump = Micros(3'000'000);
  pass(100ms);
  EXPECT_NEAR(position_s(), 5.1, 0.03);
}

TEST_F(PlayerByHand, ALoopBeginsTheSoundAnew) {
  play(Micros(0), {Micros(1'000'000), Micros(2'000'000), true});
  pass(5s);
  EXPECT_TRUE(player_->isPlaying());
  ASSERT_GE(script_->played.size(), 4u);
  EXPECT_EQ(script_->played[1], Micros(1'000'000));
  EXPECT_LT(position_s(), 2.03);
  EXPECT_GE(position_s(), 1);
}

TEST_F(PlayerByHand, TheEndStopsLightAndSound) {
  play(Micros(0), {Micros(0), Micros(1'500'000), false});
  pass(2s);
  EXPECT_FALSE(player_->isPlaying());
  EXPECT_EQ(player_->position(), Micros(1'500'000));
  EXPECT_EQ(script_->begunAt, MonoTime(-1));
}

TEST_F(PlayerByHand, SoundThatIsLostIsTakenUpWhereTheLightIs) {
  play();
  pass(3s);
  script_->isLost = true;
  pass(5s);
  EXPECT_GE(script_->reopened, 2) << "it is tried now and then";
  EXPECT_LE(script_->reopened, 3);
  EXPECT_NEAR(position_s(), 8, 0.1) << "light goes on meanwhile";
  script_->comesBack = true;
  pass(3s);
  ASSERT_EQ(script_->played.size(), 2u);
  EXPECT_GT(seconds(script_->played[1]), 8);
  EXPECT_NEAR(position_s(), 11, 0.1);
}

TEST_F(PlayerByHand, NothingIsOpenedOrLookedUpBeforeLightIsWanted) {
  const FixtureId line = show_.fixtures[0]->id;
  const ControllerId box = addController(show_, 1), dmx = addController(show_, 1);
  hang(show_, {line, 0, 6}, {box, 0, 0});
  hang(show_, {line, 0, 6}, {dmx, 0, 0});
  changeItem(show_.controllers, box, [](Controller& c) { c.host = "no-such-host.invalid"; });
  changeItem(show_.controllers, dmx, [](Controller& c) {
    c.protocol = Protocol::SerialDmx;
    c.host = "/nowhere/ttyUSB0";
  });
  player_->setShow(show_, compile(show_));
  pass(3s);
  for (const LineState& state : player_->lines())
    EXPECT_TRUE(state.reached) << "nobody was asked: " << state.trouble;
  player_->switchLight(true);
  pass(100ms);
  const auto lines = player_->lines();
  ASSERT_EQ(lines.size(), 2u);
  for (const LineState& state : lines) EXPECT_FALSE(state.reached);
}

}  // namespace
}  // namespace chispa::engine
