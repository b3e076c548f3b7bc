// SPDX-License-Identifier: GPL-3.0-or-later
#include <set>

#include "eventually.h"
#include "temporary.h"
#include <gtest/gtest.h>

#include "core/edit/scoreedits.h"
#include "core/edit/wireedits.h"
#include "engine/player.h"
#include "node/node.h"

namespace chispa::engine {
namespace {

using namespace std::chrono_literals;

using test::eventually;

TEST(Transport, IsALineThroughTimeWhilePlaying) {
  const TransportState state{ScoreId{1}, Micros(1'000'000), 10s, true};
  EXPECT_EQ(state.positionAt(9s), Micros(1'000'000)) << "before its start it stands";
  EXPECT_EQ(state.positionAt(12s), Micros(3'000'000));
  const TransportState paused{ScoreId{1}, Micros(1'000'000), 10s, false};
  EXPECT_EQ(paused.positionAt(12s), Micros(1'000'000));
}

TEST(LatenessHistogram, PercentilesAreThoseOfWhatWasAdded) {
  LatenessHistogram histogram;
  for (int i = 1; i <= 1000; ++i) histogram.add(i * 10us);
  EXPECT_NEAR(histogram.percentile_ms(0.5), 5.0, 0.03);
  EXPECT_NEAR(histogram.percentile_ms(0.99), 9.9, 0.03);
  EXPECT_NEAR(histogram.most_ms(), 10, 0.001);
}

TEST(FrameBox, TheReaderGetsTheNewestWholeFrame) {
  FrameBox box;
  box.resize(1000);
  std::atomic<bool> done{false};
  std::thread writer([&] {
    for (int i = 1; i <= 20'000; ++i) {
      auto& frame = box.filling();
      std::fill(frame.r.begin(), frame.r.end(), static_cast<float>(i));
      box.publish();
    }
    done = true;
  });
  float last = 0;
  while (!done) {
    const PixelFrame& frame = box.latest();
    ASSERT_EQ(frame.r.front(), frame.r.back()) << "a torn frame";
    ASSERT_GE(frame.r.front(), last);
    last = frame.r.front();
  }
  writer.join();
  EXPECT_EQ(box.latest().r[500], 20'000);
}

TEST(Handover, EveryValueIsDeletedOnce) {
  static std::atomic<int> alive{0};
  struct Counted {
    Counted() { ++alive; }
    ~Counted() { --alive; }
  };
  {
    Handover<Counted> handover;
    std::atomic<bool> done{false};
    std::thread taker([&] {
      while (!done) handover.take([](Counted*, Counted&) {});
    });
    for (int i = 0; i < 5000; ++i) handover.give(std::make_unique<Counted>());
    done = true;
    taker.join();
  }
  EXPECT_EQ(alive, 0);
}

/// One line of strip in solid red on a node, driven step by step on a clock of the test's own.
class StepByStep : public testing::Test {
 protected:
  StepByStep() : address_(test::loopbackAddress(6)), node_({"Node", 8, address_, {}}) {
    std::string why;
    EXPECT_TRUE(node_.start(why)) << why;
    const FixtureId line = addFixture(show_, LineShape{6, 0.1}, {});
    box_ = addController(show_, 2);
    changeItem(show_.controllers, box_, [this](Controller& c) { c.host = address_; });
    hang(show_, {line, 0, 6}, {box_, 0, 0});
    setSkipped(show_, {box_, 0, 0}, 1);
    const PaletteId red = addPalette(show_, "Red", {{0, {255, 0, 0}}});
    score_ = addScore(show_, "S", "", Micros(2'000'000));
    addClip(show_, score_, show_.zones[0]->id, "ribbon", red, Micros(0), Micros(2'000'000));
    node_.setSettings({{1, "e131", {{6, "GRB", 1, 1, 4}}}});
    load();
    transport_.set({score_, Micros(500'000), 0s, false});
  }

  void load() {
    std::vector<LineProblem> problems;
    ProgramSetup setup;
    // As the player has it, a box of frames is for so many pixels.
    if (const int pixels = mapPixels(show_).count(); std::exchange(framed_, pixels) != pixels) {
      frames_ = std::make_shared<FrameBox>();
      frames_->resize(static_cast<std::size_t>(pixels));
    }
    setup.frames = frames_;
    output_.load(makeProgram(show_, compile(show_), setup, problems));
    EXPECT_TRUE(problems.empty());
  }
  void step(int times = 1) {
    for (int i = 0; i < times; ++i) output_.step(now_ += 25ms);
  }
  std::string shown(int pixel) const {
    return node_.state()["ports"][0]["shows"][static_cast<std::size_t>(pixel)];
  }
  std::uint64_t packets() const {
    const auto state = node_.state();
    return state["universes"].empty() ? 0 : state["universes"][0]["packets"].get<std::uint64_t>();
  }

  std::string address_;
  node::Node node_;
  Show show_;
  ControllerId box_;
  ScoreId score_;
  Transport transport_;
  Output output_{transport_};
  int framed_ = 0;
  std::shared_ptr<FrameBox> frames_;
  MonoTime now_{0};
};

TEST_F(StepByStep, LightThatStandsStillIsNotComputedAgainUntilSomethingChanges) {
  const auto next = [this] {
    const PixelFrame* before = &frames_->latest();
    step();
    return &frames_->latest() != before;
  };
  EXPECT_TRUE(next());
  EXPECT_FALSE(next());
  EXPECT_FALSE(next());
  transport_.set({score_, Micros(600'000), 0s, false});
  EXPECT_TRUE(next()) << "moved";
  EXPECT_FALSE(next());
  load();
  EXPECT_TRUE(next()) << "edited";
  EXPECT_FALSE(next());
  output_.setHighlight({Highlight::Kind::Isolate, {2}});
  EXPECT_TRUE(next()) << "pointed at";
  EXPECT_FLOAT_EQ(frames_->latest().r[0], 0);
  output_.setHighlight({});
  EXPECT_TRUE(next()) << "not pointed at any more";
  EXPECT_FLOAT_EQ(frames_->latest().r[0], 1);
  EXPECT_FALSE(next());
}

TEST_F(StepByStep, DimLightThatStandsStillGoesOnBeingDithered) {
  changeItem(show_.palettes, show_.palettes[0]->id, [](Palette& p) { p.stops[0].colour = {9, 0, 0}; });
  load();
  output_.switchLight(true);
  std::set<std::string> seen;
  for (int i = 1; i <= 24; ++i) {
    step();
    ASSERT_TRUE(eventually([&] { return packets() >= static_cast<std::uint64_t>(i); }));
    seen.insert(shown(1));
  }
  EXPECT_EQ(seen, (std::set<std::string>{"#000000", "#010000"}));
}

/// Half light lies between two values: dithering moves it, until it has stood for two periods of four frames.
TEST_F(StepByStep, LightThatStandsStillIsSentNoMoreThanItMust) {
  changeItem(show_.palettes, show_.palettes[0]->id, [](Palette& p) { p.stops[0].colour = {191, 150, 120}; });
  load();
  output_.switchLight(true);
  step(24);
  // The node has taken all of them once nothing more comes.
  std::uint64_t before = 0;
  int quiet = 0;
  EXPECT_TRUE(eventually([&] {
    const std::uint64_t now = packets();
    quiet = now > 0 && now == before ? quiet + 1 : 0;
    before = now;
    return quiet > 10;
  }));
  // Five seconds of frames.
  std::set<std::string> seen;
  for (int i = 0; i < 200; ++i) {
    step();
    seen.insert(shown(1) + shown(2) + shown(3) + shown(4) + shown(5) + shown(6));
  }
  ASSERT_TRUE(eventually([&] { return packets() >= before + 6; }));
  EXPECT_LE(packets(), before + 12) << "a packet each 0.8 s, and some until it is held";
  EXPECT_EQ(seen.size(), 1u) << "nothing moves any more";
  // It is still told from what comes after it.
  changeItem(show_.palettes, show_.palettes[0]->id, [](Palette& p) { p.stops[0].colour = {194, 150, 120}; });
  load();
  const std::string held = shown(1);
  EXPECT_TRUE(eventually([&] { return step(), shown(1) != held; })) << "an edit is seen";
}

/// A frame of six universes for a controller that takes two packets at once: the others follow in steps.
TEST_F(StepByStep, ASmallControllerGetsAFrameInRows) {
  const FixtureId more = addFixture(show_, LineShape{1'000, 0.01}, {});
  hang(show_, {more, 0, 1'000}, {box_, 1, 0});
  changeItem(show_.controllers, box_, [](Controller& c) { c.maxPacketsInRow = 2; });
  load();
  output_.switchLight(true);
  const auto arrived = [this] {
    std::uint64_t sum = 0;
    const auto state = node_.state();
    for (const auto& universe : state["universes"]) sum += universe["packets"].get<std::uint64_t>();
    return sum;
  };
  step();
  EXPECT_TRUE(eventually([&] { return arrived() == 2; })) << arrived();
  std::vector<MonoTime> used;
  for (const MonoTime late : output_.delays()) {
    if (!output_.isDue(late)) continue;
    output_.stepLate(late, now_ + late);
    used.push_back(late);
  }
  EXPECT_EQ(used, (std::vector<MonoTime>{1ms, 2ms, 3ms})) << "seven universes, two at once";
  EXPECT_TRUE(eventually([&] { return arrived() == 7; })) << arrived();
}

/// What holds still is let go by all that changes light after it was computed.
TEST_F(StepByStep, LightThatIsHeldFollowsMasterBlackoutAndTheSwitch) {
  changeItem(show_.palettes, show_.palettes[0]->id, [](Palette& p) { p.stops[0].colour = {255, 0, 0}; });
  load();
  output_.switchLight(true);
  const auto becomes = [this](const std::string& colour) {
    step(24);
    return eventually([&] { return shown(1) == colour; });
  };
  EXPECT_TRUE(becomes("#ff0000"));
  output_.setBlackout(true);
  EXPECT_TRUE(becomes("#000000"));
  output_.setBlackout(false);
  EXPECT_TRUE(becomes("#ff0000"));
  output_.setMaster(0);
  EXPECT_TRUE(becomes("#000000"));
  output_.setMaster(1);
  EXPECT_TRUE(becomes("#ff0000"));
  ValueOverlay overlay;
  overlay.universes.push_back({box_, 1, {}});
  output_.setOverlay(overlay);
  EXPECT_TRUE(becomes("#000000"));
  output_.setOverlay({});
  EXPECT_TRUE(becomes("#ff0000"));
  output_.switchLight(false);
  EXPECT_TRUE(becomes("#000000"));
  output_.switchLight(true);
  EXPECT_TRUE(becomes("#ff0000"));
}

TEST_F(StepByStep, LightIsOffUntilSwitchedOn) {
  step(10);
  std::this_thread::sleep_for(50ms);
  EXPECT_EQ(packets(), 0u);
  output_.switchLight(true);
  step();
  EXPECT_TRUE(eventually([this] { return packets() == 1; }));
  EXPECT_EQ(shown(0), "#000000") << "the skipped pixel";
  EXPECT_EQ(shown(1), "#ff0000");
  EXPECT_EQ(shown(6), "#ff0000");
}

TEST_F(StepByStep, SwitchingOffSendsBlackThenEndsTheStream) {
  output_.switchLight(true);
  step();
  output_.switchLight(false);
  step(3);
  EXPECT_TRUE(eventually([this] { return packets() == 7; }))
      << "one lit, three black a period apart, three ends";
  EXPECT_TRUE(output_.isDark());
  EXPECT_EQ(shown(1), "#000000");
  EXPECT_EQ(node_.state()["universes"][0]["terminated"], true);
  EXPECT_EQ(node_.state()["universes"][0]["lost"], 0);
}

TEST_F(StepByStep, QuittingSendsBlackThenEndsTheStream) {
  output_.switchLight(true);
  step();
  EXPECT_FALSE(output_.isDark());
  int periods = 1;
  while (output_.finish(now_ += 25ms)) ++periods;
  EXPECT_EQ(periods, 3);
  EXPECT_TRUE(eventually([this] { return packets() == 7; }));
  EXPECT_EQ(shown(3), "#000000");
}

TEST_F(StepByStep, BlackoutAndMasterScaleWhatIsSent) {
  output_.switchLight(true);
  output_.setMaster(0.5f);
  step();
  EXPECT_TRUE(eventually([this] { return packets() == 1; }));
  // Half as bright to the eye: 18.4 % of the light.
  EXPECT_TRUE(shown(1) == "#2e0000" || shown(1) == "#2f0000") << shown(1);
  output_.setBlackout(true);
  step();
  EXPECT_TRUE(eventually([this] { return packets() == 2; }));
  EXPECT_EQ(shown(1), "#000000");
}

TEST_F(StepByStep, AnEditIsOnTheLedsInTheNextFrame) {
  output_.switchLight(true);
  step();
  changeItem(show_.palettes, show_.palettes[0]->id, [](Palette& p) { p.stops[0].colour = {0, 0, 255}; });
  load();
  step();
  EXPECT_TRUE(eventually([this] { return packets() == 2; }));
  EXPECT_EQ(shown(1), "#0000ff");
  EXPECT_EQ(node_.state()["universes"][0]["lost"], 0) << "sequence numbers go on across the edit";
}

TEST_F(StepByStep, ABudgetHoldsTheLightBack) {
  // Six red pixels of 12 mA: 72 mA are wanted, 36 allowed.
  inject(show_, {box_, 0, 0}, 0);
  changeItem(show_.supplies, show_.supplies[0]->id, [](Supply& s) { s.limit_a = 0.036; });
  load();
  output_.switchLight(true);
  step();
  EXPECT_TRUE(eventually([this] { return packets() == 1; }));
  EXPECT_TRUE(shown(1) == "#7f0000" || shown(1) == "#800000") << shown(1);
}

TEST_F(StepByStep, ADelayHoldsFramesBackAndOneThatIsNotWholeLeavesInBetween) {
  changeItem(show_.controllers, box_, [](Controller& c) { c.delay_ms = 60; });
  load();
  output_.switchLight(true);
  step();
  // 60 ms: two frames of 25 ms, and 10 ms after the third's instant.
  ASSERT_EQ(output_.delays().size(), 1u);
  EXPECT_EQ(output_.delays()[0], 10ms);
  output_.stepLate(10ms, now_ + 10ms);
  EXPECT_TRUE(eventually([this] { return shown(1) == "#ff0000"; }))
      << "the first frame stands for those before it";
  changeItem(show_.palettes, show_.palettes[0]->id, [](Palette& p) { p.stops[0].colour = {0, 0, 255}; });
  output_.setMaster(0.5f);
  for (int frame = 0; frame < 2; ++frame) {
    step();
    output_.stepLate(10ms, now_ + 10ms);
  }
  EXPECT_TRUE(eventually([this] { return packets() == 2; }));
  EXPECT_EQ(shown(1), "#ff0000") << "60 ms later the old light leaves";
  step();
  output_.stepLate(10ms, now_ + 10ms);
  EXPECT_TRUE(eventually([this] { return packets() == 3; }));
  EXPECT_NE(shown(1), "#ff0000");
  output_.switchLight(false);
  step();
  EXPECT_TRUE(eventually([this] { return shown(1) == "#000000"; })) << "off is off at once";
}

TEST_F(StepByStep, ARateLimitLeavesFramesOut) {
  changeItem(show_.controllers, box_, [](Controller& c) { c.maxFramesPerSecond = 10; });
  addClip(show_, score_, show_.zones[0]->id, "comets", show_.palettes[0]->id, Micros(0), Micros(2'000'000));
  load();
  output_.switchLight(true);
  step(40);
  std::this_thread::sleep_for(50ms);
  EXPECT_LE(packets(), 11u);
  EXPECT_GE(packets(), 4u);
}

TEST_F(StepByStep, AControllerThatIsTakenAwayIsLeftDark) {
  output_.switchLight(true);
  step();
  EXPECT_TRUE(eventually([this] { return shown(1) == "#ff0000"; }));
  remove(show_.controllers, box_);
  load();
  step();
  EXPECT_TRUE(eventually(
      [this] { return shown(1) == "#000000" && node_.state()["universes"][0]["terminated"] == true; }));
}

TEST_F(StepByStep, AUniverseThatIsNotSentAnyMoreIsEnded) {
  output_.switchLight(true);
  step();
  changeItem(show_.controllers, box_, [](Controller& c) { c.firstUniverse = 9; });
  load();
  step();
  EXPECT_TRUE(eventually([this] {
    const auto state = node_.state();
    return state["universes"].size() == 2 && state["universes"][0]["terminated"] == true &&
           state["universes"][1]["packets"] == 1;
  }));
}

TEST_F(StepByStep, AWalkLightsOnePixelAfterAnother) {
  output_.switchLight(true);
  TestSignal walk;
  walk.target.controller = box_;
  walk.target.port = 0;
  walk.seconds = 0.025;
  walk.since = now_ + 25ms;
  output_.setSignal(walk);
  for (int place = 0; place < 7; ++place) {
    step();
    EXPECT_TRUE(eventually([&] { return packets() == static_cast<std::uint64_t>(place + 1); }));
    for (int i = 0; i < 7; ++i)
      EXPECT_EQ(shown(i), i == place && i > 0 ? "#ffffff" : "#000000")
          << "place " << place << ", pixel " << i;
  }
  output_.setSignal(std::nullopt);
  step();
  EXPECT_TRUE(eventually([this] { return packets() == 8; }));
  EXPECT_EQ(shown(1), "#ff0000") << "the score goes on";
}

TEST(Signals, ShowWhatTheyAreNamedFor) {
  TestSignal signal;
  const auto row = [&](int count, MonoTime now = 0ns, int port = 0) {
    std::string letters;
    for (int place = 0; place < count; ++place) {
      const Rgb c = signalColour(signal, {port, place, count, {}}, now);
      letters += c == Rgb{}          ? '.'
                 : c == Rgb{1, 1, 1} ? 'w'
                 : c == Rgb{1, 0, 0} ? 'r'
                 : c == Rgb{0, 1, 0} ? 'g'
                 : c == Rgb{0, 0, 1} ? 'b'
                                     : '?';
    }
    return letters;
  };
  signal.seconds = 1;
  signal.lit = 2;
  EXPECT_EQ(row(6), "ww....");
  EXPECT_EQ(row(6, 5s), "w....w") << "it starts over";
  signal.bounces = true;
  EXPECT_EQ(row(6, 4s), "....ww");
  EXPECT_EQ(row(6, 5s), "...ww.") << "it turns back";
  EXPECT_EQ(row(6, 8s), "ww....");
  EXPECT_EQ(row(1, 8s), "w");
  signal.kind = TestSignal::Kind::Solid;
  EXPECT_EQ(row(3), "www");
  signal.kind = TestSignal::Kind::Cycle;
  EXPECT_EQ(row(2, 0s) + row(2, 1s) + row(2, 2s) + row(2, 3s) + row(2, 4s), "rrggbbwwrr");
  signal.kind = TestSignal::Kind::EveryNth;
  signal.nth = 3;
  EXPECT_EQ(row(8), "r..w..w.");
  signal.kind = TestSignal::Kind::Alternate;
  EXPECT_EQ(row(4), "w.w.");
  EXPECT_EQ(row(4, 1s), ".w.w");
  signal.kind = TestSignal::Kind::Ends;
  EXPECT_EQ(row(4), "g..r");
  signal.kind = TestSignal::Kind::PortColours;
  EXPECT_EQ(row(1, 0s, 0) + row(1, 0s, 1) + row(1, 0s, 2), "rgb");
  signal.kind = TestSignal::Kind::Gradient;
  EXPECT_EQ(signalColour(signal, {0, 0, 5, {}}, 0s), Rgb{});
  EXPECT_EQ(signalColour(signal, {0, 4, 5, {}}, 0s), (Rgb{1, 1, 1}));
  signal.colour = {0.25f, 0.25f, 0.25f};
  signal.kind = TestSignal::Kind::Ends;
  EXPECT_EQ(signalColour(signal, {0, 0, 5, {}}, 0s), (Rgb{0, 0.25f, 0}))
      << "nothing is brighter than its level";
}

TEST_F(StepByStep, WhatIsNotTestedMayPlayOn) {
  const FixtureId other = addFixture(show_, LineShape{3}, {});
  hang(show_, {other, 0, 3}, {box_, 1, 0});
  TestSignal signal;
  signal.kind = TestSignal::Kind::Solid;
  signal.target.controller = box_;
  signal.target.port = 1;
  signal.restPlays = true;
  load();
  output_.setSignal(signal);
  output_.switchLight(true);
  step();
  EXPECT_TRUE(eventually([this] { return shown(1) == "#ff0000"; })) << "port 1 plays the score";
  signal.restPlays = false;
  output_.setSignal(signal);
  step();
  EXPECT_TRUE(eventually([this] { return shown(1) == "#000000"; }));
}

/// A clock that never waits, and stands still when told to: overruns are made, not waited for.
class JumpingClock final : public Clock {
 public:
  MonoTime now() const noexcept override { return MonoTime(now_.load()); }
  void sleepUntil(MonoTime instant) noexcept override {
    // The third frame finds itself 110 ms late.
    const std::int64_t late = ++sleeps_ == 3 ? 110'000'000 : 0;
    now_ = std::max(now_.load(), instant.count()) + late;
    std::this_thread::sleep_for(1ms);
  }

 private:
  std::atomic<std::int64_t> now_{0};
  std::atomic<int> sleeps_{0};
};

TEST(OutputThread, AnOverrunSkipsWholePeriods) {
  Transport transport;
  Output output(transport);
  JumpingClock clock;
  OutputStats stats;
  OutputThread thread(output, clock, stats);
  EXPECT_TRUE(eventually([&] { return stats.frames > 10; }));
  EXPECT_EQ(stats.skipped, 3u) << "the fourth is 10 ms late, and begins at once";
  EXPECT_NEAR(stats.lateness.most_ms(), 110, 0.5);
}

TEST(Player, PlaysToTheEndOnTheClockAlone) {
  Show show;
  addFixture(show, LineShape{6, 0.1}, {});
  const ScoreId score = addScore(show, "S", "", Micros(200'000));
  Player player({});
  player.setShow(show, compile(show));
  player.play(score, Micros(0), {Micros(0), Micros(200'000), false});
  EXPECT_TRUE(player.isPlaying());
  EXPECT_TRUE(eventually([&] { return !player.isPlaying(); }));
  EXPECT_EQ(player.position(), Micros(200'000));
}

TEST(Player, ALoopBeginsAgain) {
  Show show;
  const ScoreId score = addScore(show, "S", "", Micros(100'000));
  Player player({});
  player.setShow(show, compile(show));
  player.play(score, Micros(80'000), {Micros(0), Micros(100'000), true});
  EXPECT_TRUE(eventually([&] { return player.position() < Micros(60'000); }));
  EXPECT_TRUE(player.isPlaying());
}

TEST(Player, AControllerThatCannotBeFoundIsReportedAndStopsNothing) {
  Show show;
  const FixtureId line = addFixture(show, LineShape{6, 0.1}, {});
  const ControllerId box = addController(show, 1);
  hang(show, {line, 0, 6}, {box, 0, 0});
  changeItem(show.controllers, box, [](Controller& c) { c.host = ""; });
  Player player({});
  player.setShow(show, compile(show));
  player.switchLight(true);
  ASSERT_EQ(player.lines().size(), 1u);
  EXPECT_FALSE(player.lines()[0].reached);
  EXPECT_FALSE(player.lines()[0].trouble.empty());
}

}  // namespace
}  // namespace chispa::engine
