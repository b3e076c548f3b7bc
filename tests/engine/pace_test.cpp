// SPDX-License-Identifier: GPL-3.0-or-later
// Controllers that take frames at rates of their own, and what that means for dithering.
#include <gtest/gtest.h>

#include "core/edit/scoreedits.h"
#include "core/edit/wireedits.h"
#include "core/wire/framerate.h"
#include "engine/output.h"

namespace chispa::engine {
namespace {

using namespace std::chrono_literals;

/// A line of pixels on a controller, for each rate that is asked for.
class Pace : public testing::Test {
 protected:
  void build(const std::vector<double>& rates, int pixels = 20) {
    for (std::size_t i = 0; i < rates.size(); ++i) {
      const FixtureId line = addFixture(show_, LineShape{pixels, 0.1}, {});
      boxes_.push_back(addController(show_, 1));
      changeItem(show_.controllers, boxes_.back(), [&](Controller& c) {
        c.host = "127.0.0." + std::to_string(i + 2);
        c.maxFramesPerSecond = rates[i];
      });
      hang(show_, {line, 0, pixels}, {boxes_.back(), 0, 0});
    }
    const PaletteId dim = addPalette(show_, "Dim", {{0, {255, 255, 255}}});
    score_ = addScore(show_, "Still", "", Micros(60'000'000));
    for (const auto& zone : std::vector(show_.zones.begin(), show_.zones.end())) {
      const ClipId clip = addClip(show_, score_, zone->id, "hold", dim, Micros(0), Micros(60'000'000));
      changeClip(show_, score_, clip, [](Clip& c) { c.strength = 1.5 / 255; });
    }
    std::vector<LineProblem> problems;
    auto program = makeProgram(show_, compile(show_), ProgramSetup{}, problems);
    leaving_ = program->leaving;
    tick_ = program->tick;
    output_.keepRecord(1'000'000);
    output_.load(std::move(program));
    output_.switchLight(true);
    // It stands still: what changes is dithering.
    transport_.set({score_, Micros(1'000'000), 0s, false});
  }
  /// Nothing stays as it was: what does not change is sent more seldom.
  void move() {
    const PaletteId both = addPalette(show_, "Both", {{0, {0, 0, 0}}, {1, {255, 255, 255}}});
    const Score score = *find(show_.scores, score_);
    for (const auto& clip : score.clips)
      changeClip(show_, score_, clip->id, [both](Clip& c) {
        c.effect = "ribbon";
        c.palette = both;
        c.strength = 1;
      });
    std::vector<LineProblem> problems;
    auto program = makeProgram(show_, compile(show_), ProgramSetup{}, problems);
    leaving_ = program->leaving;
    output_.load(std::move(program));
    transport_.set({score_, Micros(0), now_, true});
  }
  /// Frames that each controller took in that time.
  std::vector<int> takenIn(MonoTime time) {
    const std::size_t before = output_.record().size();
    for (MonoTime gone{0}; gone < time; gone += tick_) output_.step(now_ += tick_);
    std::vector<int> taken(boxes_.size());
    for (std::size_t i = before; i < output_.record().size(); ++i) ++taken[output_.record()[i].universe];
    return taken;
  }

  Show show_;
  std::vector<ControllerId> boxes_;
  ScoreId score_;
  Transport transport_;
  Output output_{transport_};
  std::shared_ptr<ValueBox> leaving_;
  MonoTime tick_{0};
  MonoTime now_{10s};
};

TEST_F(Pace, EachControllerTakesFramesAtItsOwnRate) {
  build({0, 120, 60, 30, 10});
  move();
  EXPECT_EQ(tick_, MonoTime(1s) / 120);
  takenIn(1s);
  const auto taken = takenIn(2s);
  const int wanted[] = {80, 240, 120, 60, 20};
  for (std::size_t i = 0; i < taken.size(); ++i) EXPECT_NEAR(taken[i], wanted[i], 1) << i;
}

TEST_F(Pace, NoneIsSentMoreThanItTakes) {
  build({33, 45, 0.5});
  move();
  takenIn(1s);
  const auto taken = takenIn(4s);
  EXPECT_NEAR(taken[0], 4 * 30, 1) << "30 is the next rate below";
  EXPECT_NEAR(taken[1], 4 * 40, 1);
  EXPECT_NEAR(taken[2], 2, 1);
}

TEST_F(Pace, WhereAllAreUsualTheOutputRestsBetweenFrames) {
  build({0, 20});
  EXPECT_EQ(tick_, 25ms);
}

TEST_F(Pace, DitheringGoesOnWhileTheScoreStandsStillByTheFramesThatAreSent) {
  build({0, 20});
  std::array<std::vector<std::vector<std::uint8_t>>, 2> sent;
  for (int frame = 0; frame < 16; ++frame) {
    const std::size_t before = output_.record().size();
    output_.step(now_ += tick_);
    const auto& values = leaving_->latest();
    for (std::size_t i = before; i < output_.record().size(); ++i) {
      const auto universe = output_.record()[i].universe;
      const auto first = values.begin() + static_cast<std::ptrdiff_t>(universe * kUniverseChannels);
      sent[universe].emplace_back(first, first + 60);
    }
  }
  ASSERT_EQ(sent[0].size(), 16u);
  ASSERT_EQ(sent[1].size(), 8u);
  EXPECT_NE(sent[0][0], sent[0][1]);
  // 40 frames a second come back after four, 20 after two: ten times a second.
  for (std::size_t i = 0; i + 4 < 16; ++i) EXPECT_EQ(sent[0][i], sent[0][i + 4]) << i;
  for (std::size_t i = 0; i + 2 < 8; ++i) EXPECT_EQ(sent[1][i], sent[1][i + 2]) << i;
  for (const auto& frames : sent) {
    double sum = 0;
    for (const auto& frame : frames)
      for (const std::uint8_t value : frame) sum += value;
    EXPECT_NEAR(sum / static_cast<double>(frames.size() * 60), 1.5, 0.1);
  }
}

TEST_F(Pace, AnEditDoesNotMakeDitheringBeginAnew) {
  build({0});
  std::vector<std::vector<std::uint8_t>> sent;
  for (int frame = 0; frame < 8; ++frame) {
    if (frame == 3) {
      std::vector<LineProblem> problems;
      auto program = makeProgram(show_, compile(show_), ProgramSetup{}, problems);
      leaving_ = program->leaving;
      output_.load(std::move(program));
    }
    output_.step(now_ += tick_);
    sent.push_back(leaving_->latest());
  }
  for (std::size_t i = 0; i + 4 < 8; ++i) EXPECT_EQ(sent[i], sent[i + 4]) << i;
}

TEST(FrameRate, IsTheUsualUnlessMoreIsAskedForAndThereIsTimeForIt) {
  const auto rateOf = [](int pixels, double asked, const std::string& order = "GRB",
                         Protocol protocol = Protocol::E131) {
    Show show;
    StripType strip;
    strip.id = show.newId<StripTypeId>();
    strip.order = order;
    put(show.stripTypes, strip);
    const FixtureId line = addFixture(show, LineShape{pixels, 0.01}, {}, {}, strip.id);
    const ControllerId box = addController(show, 1);
    changeItem(show.controllers, box, [&](Controller& c) {
      c.maxFramesPerSecond = asked;
      c.protocol = protocol;
    });
    hang(show, {line, 0, pixels}, {box, 0, 0});
    return frameRateOf(show, *show.controllers[0]).framesPerSecond();
  };
  EXPECT_EQ(rateOf(100, 0), 40);
  EXPECT_EQ(rateOf(100, 120), 120);
  EXPECT_EQ(rateOf(100, 1000), 120);
  EXPECT_EQ(rateOf(100, 100), 60) << "whole steps of a 120th";
  // 24 bits take 30 µs: 400 pixels 12.3 ms with the rest between.
  EXPECT_EQ(rateOf(400, 120), 60);
  EXPECT_EQ(rateOf(400, 120, "GRBW"), 60);
  EXPECT_EQ(rateOf(600, 120), 40) << "no less than without asking";
  EXPECT_EQ(rateOf(600, 25), 24);
  EXPECT_EQ(rateOf(28'224, 60, "GRB", Protocol::Screen), 60) << "a screen has no chips";
  EXPECT_EQ(rateOf(100, 60, "GRB", Protocol::SerialDmx), 40);
}

}  // namespace
}  // namespace chispa::engine
