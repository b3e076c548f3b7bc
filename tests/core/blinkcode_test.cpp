// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/vision/blinkcode.h"

#include <bit>
#include <random>

#include <gtest/gtest.h>

namespace chispa::vision {
namespace {

class Words : public testing::TestWithParam<int> {};

TEST_P(Words, DifferInAtLeastEightPlacesAndAreReadBack) {
  const BlinkCode code(GetParam());
  std::mt19937 random(5);
  for (int i = 0; i < 4'000; ++i) {
    const int a = static_cast<int>(random() % static_cast<unsigned>(code.leds()));
    const int b = static_cast<int>(random() % static_cast<unsigned>(code.leds()));
    ASSERT_EQ(code.ledOf(code.word(a)), a);
    ASSERT_LT(code.word(a), std::uint64_t{1} << code.bits());
    ASSERT_TRUE(a == b || std::popcount(code.word(a) ^ code.word(b)) >= 8) << a << " " << b;
  }
}

TEST_P(Words, AreFilledInWhereUpToFourPlacesAreUnread) {
  const BlinkCode code(GetParam());
  std::mt19937 random(6);
  for (int i = 0; i < 500; ++i) {
    const int led = static_cast<int>(random() % static_cast<unsigned>(code.leds()));
    std::uint64_t unread = 0;
    for (int k = 0; k < 4; ++k) unread |= std::uint64_t{1} << (random() % static_cast<unsigned>(code.bits()));
    // What was not read may say anything.
    const std::uint64_t seen = code.word(led) ^ (random() & unread);
    ASSERT_EQ(code.ledOf(seen, unread), led);
  }
}

TEST_P(Words, OfWrongReadingsNeverNameAnotherLed) {
  const BlinkCode code(GetParam());
  std::mt19937 random(7);
  for (int i = 0; i < 2'000; ++i) {
    const int led = static_cast<int>(random() % static_cast<unsigned>(code.leds()));
    std::uint64_t wrong = code.word(led);
    const int errors = 1 + static_cast<int>(random() % 7);
    for (int k = 0; k < errors; ++k)
      wrong ^= std::uint64_t{1} << (random() % static_cast<unsigned>(code.bits()));
    const auto read = code.ledOf(wrong);
    ASSERT_TRUE(!read || *read == led) << errors;
  }
}

TEST_P(Words, MoreThanFourUnreadPlacesAreTooMany) {
  const BlinkCode code(GetParam());
  EXPECT_EQ(code.ledOf(code.word(0), 0b11111), std::nullopt);
}

INSTANTIATE_TEST_SUITE_P(Sizes, Words, testing::Values(1, 2, 50, 4'094, 4'095, 20'000, BlinkCode::kMaxLeds));

TEST(BlinkSteps, EveryLedIsLitInHalfOfThePlacesAndAllTogetherAtTheMark) {
  const BlinkCode code(300);
  for (int led = 0; led < 300; ++led) {
    int lit = 0;
    for (int step = 0; step < roundSteps(code.bits()); ++step)
      lit += isBlinkLit(code.word(led), code.bits(), step) ? 1 : 0;
    ASSERT_EQ(lit, kLitMarkSteps + code.bits());
    EXPECT_FALSE(isBlinkLit(code.word(led), code.bits(), 0));
    EXPECT_TRUE(isBlinkLit(code.word(led), code.bits(), 2));
    EXPECT_FALSE(isBlinkLit(code.word(led), code.bits(), 4));
    // Each place is shown once lit and once dark.
    for (int place = 0; place < code.bits(); ++place)
      ASSERT_NE(isBlinkLit(code.word(led), code.bits(), kMarkSteps + 2 * place),
                isBlinkLit(code.word(led), code.bits(), kMarkSteps + 2 * place + 1));
  }
}

TEST(BlinkSteps, RoundsFollowEachOtherWithoutEnd) {
  const BlinkCode code(10);
  const std::int64_t round = roundSteps(code.bits());
  for (std::int64_t step = 0; step < round; ++step)
    EXPECT_EQ(isBlinkLit(code.word(3), code.bits(), step),
              isBlinkLit(code.word(3), code.bits(), step + 1'000'000 * round));
}

}  // namespace
}  // namespace chispa::vision
