// SPDX-License-Identifier: GPL-3.0-or-later
#include <gtest/gtest.h>

#include "core/edit/lookedits.h"
#include "core/edit/scoreedits.h"
#include "core/edit/wireedits.h"
#include "engine/output.h"

namespace chispa::engine {
namespace {

using namespace std::chrono_literals;

/// Two lamps that grow brighter over two seconds, each on a controller of its own; the second's light is
/// late.
class Lead : public testing::Test {
 protected:
  Lead() {
    for (int i = 0; i < 2; ++i) {
      const FixtureId lamp = addFixture(show_, LineShape{1, 0.1}, {});
      boxes_[i] = addController(show_, 1);
      changeItem(show_.controllers, boxes_[i],
                 [i](Controller& c) { c.host = "127.0.0." + std::to_string(i + 2); });
      hang(show_, {lamp, 0, 1}, {boxes_[i], 0, 0});
    }
    const PaletteId white = addPalette(show_, "White", {{0, {255, 255, 255}}});
    score_ = addScore(show_, "Slow", "", Micros(4'000'000));
    for (const auto& zone : std::vector(show_.zones.begin(), show_.zones.end())) {
      const ClipId clip = addClip(show_, score_, zone->id, "hold", white, Micros(0), Micros(4'000'000));
      changeClip(show_, score_, clip, [](Clip& c) { c.fadeIn = Micros(2'000'000); });
    }
    show_.light.fades = Evenness::InLight;
    delay(1, -150);
    output_.switchLight(true);
  }

  void delay(int box, double ms) {
    changeItem(show_.controllers, boxes_[box], [ms](Controller& c) { c.delay_ms = ms; });
  }
  void load() {
    std::vector<LineProblem> problems;
    ProgramSetup setup;
    setup.opensLines = false;
    auto program = makeProgram(show_, compile(show_), setup, problems);
    leaving_ = program->leaving;
    output_.load(std::move(program));
  }
  /// What leaves for a lamp at `now`.
  int sent(int box, MonoTime now) {
    // At one instant there is one step.
    if (now != stepped_) output_.step(stepped_ = now);
    return leaving_->latest()[static_cast<std::size_t>(box) * 512];
  }
  static double levelAt(double t_s) { return 255 * std::min(1.0, t_s / 2); }

  Show show_;
  ControllerId boxes_[2];
  ScoreId score_;
  Transport transport_;
  Output output_{transport_};
  std::shared_ptr<ValueBox> leaving_;
  MonoTime stepped_{-1};
};

TEST_F(Lead, LightThatIsLateIsComputedAhead) {
  load();
  transport_.set({score_, Micros(0), 0s, true});
  for (const double t_s : {0.25, 0.5, 1.0, 1.5}) {
    const MonoTime now(static_cast<std::int64_t>(t_s * 1e9));
    EXPECT_NEAR(sent(0, now), levelAt(t_s), 1.01) << t_s;
    EXPECT_NEAR(sent(1, now), levelAt(t_s + 0.15), 1.01) << t_s;
  }
}

TEST_F(Lead, WhatStandsIsTheSameEverywhere) {
  load();
  transport_.set({score_, Micros(1'000'000), 0s, false});
  EXPECT_NEAR(sent(0, 5s), sent(1, 5s), 1) << "as near as two pixels are dithered";
}

TEST_F(Lead, EachHasItsOwnAndADelayGoesOnBeside) {
  delay(0, -500);
  load();
  transport_.set({score_, Micros(0), 0s, true});
  EXPECT_NEAR(sent(0, 1s), levelAt(1.5), 1.01);
  EXPECT_NEAR(sent(1, 1s), levelAt(1.15), 1.01);
  delay(0, 0);
  delay(1, 0);
  load();
  EXPECT_NEAR(sent(1, 1s + 50ms), levelAt(1.05), 1.01);
}

TEST_F(Lead, ItIsHeldInTheBudgetAndGoesDarkAtOnce) {
  load();
  transport_.set({score_, Micros(0), 0s, true});
  output_.setMaster(0.5f);
  EXPECT_NEAR(sent(1, 1s), levelAt(1.15) / 2, 1.01);
  output_.setBlackout(true);
  EXPECT_EQ(sent(1, 1s + 25ms), 0);
}

/// A score that fades in over another does so ahead too, by its own course.
TEST_F(Lead, FadesBetweenScoresComeEarlierByTheLead) {
  const ScoreId next = addScore(show_, "Dark", "", Micros(4'000'000));
  load();
  transport_.set({score_, Micros(2'500'000), 0s, true});
  EXPECT_EQ(sent(1, 0s), 255);
  output_.fadeInto(next, Micros(1'000'000));
  transport_.set({next, Micros(0), 1s, true});
  // From 255 to dark in a second, each from the instant at which it plays.
  sent(0, 1s);
  EXPECT_NEAR(sent(0, 1s + 500ms), 127, 3);
  EXPECT_NEAR(sent(1, 1s + 500ms), 127, 3);
  EXPECT_EQ(sent(1, 3s), 0);
}

}  // namespace
}  // namespace chispa::engine
