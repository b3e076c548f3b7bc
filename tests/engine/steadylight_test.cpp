// SPDX-License-Identifier: GPL-3.0-or-later
// When values are held, and when not, number by number.
#include "engine/steadylight.h"

#include <array>
#include <set>
#include <vector>

#include <gtest/gtest.h>

namespace chispa::engine {
namespace {

constexpr std::uint8_t kPeriod = 4;

/// Two universes, frame by frame.
class Steady : public testing::Test {
 protected:
  /// The first universe has `base`, a step more in the frames of a period that `pattern` names; the second
  /// stands.
  std::uint8_t shown(std::uint8_t base, const std::array<int, kPeriod>& pattern) {
    const auto number = static_cast<std::uint8_t>(frame_++ % kPeriod);
    std::vector<std::uint8_t> values(1024, 7);
    std::fill_n(values.begin(), 512, static_cast<std::uint8_t>(base + pattern[number]));
    light_.settle(values, {Micros(frame_), {kPeriod, number}});
    EXPECT_EQ(values[512], 7);
    return values[0];
  }
  std::vector<std::uint8_t> shownIn(int frames, std::uint8_t base, const std::array<int, kPeriod>& pattern) {
    std::vector<std::uint8_t> all;
    for (int i = 0; i < frames; ++i) all.push_back(shown(base, pattern));
    return all;
  }

  SteadyLight light_{2};
  int frame_ = 0;
};

TEST_F(Steady, IsHeldAfterThreePeriodsAtAValueThatItHad) {
  shownIn(3 * kPeriod, 100, {0, 1, 0, 1});
  EXPECT_TRUE(light_.isWhole());
  const auto held = shownIn(20, 100, {0, 1, 0, 1});
  EXPECT_EQ(std::set<std::uint8_t>(held.begin(), held.end()).size(), 1u);
  const ShownFrame shown = light_.shownBy(0, {Micros(99), {kPeriod, 2}});
  EXPECT_EQ(shown.dither.number, 0) << "the frame that is shown";
  EXPECT_EQ(shown.position, Micros(9)) << "and when it was";
}

TEST_F(Steady, IsNotHeldWhereItIsDim) {
  shownIn(3 * kPeriod, SteadyLight::kSteadyValue - 1, {0, 1, 0, 1});
  const auto dim = shownIn(8, SteadyLight::kSteadyValue - 1, {0, 1, 0, 1});
  EXPECT_EQ(std::set<std::uint8_t>(dim.begin(), dim.end()).size(), 2u);
  EXPECT_FALSE(light_.isWhole());
}

/// Light that blinks in step with dithering comes back with each period, too.
TEST_F(Steady, WhatMovesInStepWithDitheringIsNotHeld) {
  shownIn(4 * kPeriod, 100, {0, 50, 0, 50});
  const auto blinking = shownIn(8, 100, {0, 50, 0, 50});
  EXPECT_EQ(std::set<std::uint8_t>(blinking.begin(), blinking.end()), (std::set<std::uint8_t>{100, 150}));
  shownIn(4 * kPeriod, 100, {0, 2, 0, 0});
  const auto faint = shownIn(8, 100, {0, 2, 0, 0});
  EXPECT_EQ(std::set<std::uint8_t>(faint.begin(), faint.end()), (std::set<std::uint8_t>{100, 102}));
}

TEST_F(Steady, IsLetGoByTheFirstFrameThatIsOther) {
  shownIn(4 * kPeriod, 100, {0, 1, 0, 1});
  ASSERT_TRUE(light_.isWhole());
  EXPECT_EQ(shown(101, {0, 1, 0, 1}), 101);
  EXPECT_FALSE(light_.isWhole());
  const auto moving = shownIn(8, 101, {0, 1, 0, 1});
  EXPECT_EQ(std::set<std::uint8_t>(moving.begin(), moving.end()).size(), 2u);
}

TEST_F(Steady, WhatMovesSlowlyIsNeverHeld) {
  for (int i = 0; i < 60; ++i) {
    const auto base = static_cast<std::uint8_t>(100 + i / 7);
    const std::uint8_t value = shown(base, {0, 0, 0, 0});
    EXPECT_EQ(value, base) << i;
  }
}

TEST_F(Steady, WithoutAPeriodNothingIsHeld) {
  std::vector<std::uint8_t> values(1024, 100);
  for (int i = 0; i < 20; ++i) light_.settle(values, {Micros(0), {1, 0}});
  EXPECT_FALSE(light_.isWhole());
}

}  // namespace
}  // namespace chispa::engine
