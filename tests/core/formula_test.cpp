// SPDX-License-Identifier: GPL-3.0-or-later
#include <array>
#include <random>

#include <gtest/gtest.h>

#include "core/formula/run.h"

namespace chispa::formula {
namespace {

/// Light of a formula on one cell.
float valueOf(const std::string& text, float x = 0.25f, float t = 2) {
  Mistake mistake;
  const auto program = compile(text, mistake);
  EXPECT_TRUE(program) << text << ": " << mistake.what << " at " << mistake.at;
  if (!program) return -1;
  const std::array<float, 1> cell{x};
  const std::array<float, 16> bands{0.1f, 0.2f, 0.3f};
  Inputs inputs;
  inputs.cells.fill(cell);
  inputs.moment.fill(t);
  inputs.bands = bands;
  Machine machine(*program, inputs);
  machine.run(0, 1);
  return machine.light(0);
}

std::size_t mistakeAt(const std::string& text) {
  Mistake mistake;
  EXPECT_FALSE(compile(text, mistake)) << text;
  EXPECT_FALSE(mistake.what.empty());
  return mistake.at;
}

TEST(Formula, ComputesAsOneWouldByHand) {
  EXPECT_FLOAT_EQ(valueOf("0.2 + 0.3 * 2"), 0.8f);
  EXPECT_FLOAT_EQ(valueOf("(0.2 + 0.3) * 2 - 0.5"), 0.5f);
  EXPECT_FLOAT_EQ(valueOf("2 ^ -1"), 0.5f);
  EXPECT_FLOAT_EQ(valueOf("-x + 0.5"), 0.25f);
  EXPECT_FLOAT_EQ(valueOf("t % 1.5"), 0.5f);
  EXPECT_FLOAT_EQ(valueOf("if(x < 0.3 and t >= 2, 0.75, 0.1)"), 0.75f);
  EXPECT_FLOAT_EQ(valueOf("not (x == 0.25) or x != 0.25"), 0);
  EXPECT_FLOAT_EQ(valueOf("tri(0.25)"), 0.5f);
  EXPECT_FLOAT_EQ(valueOf("sway(0.25)"), 1);
  EXPECT_FLOAT_EQ(valueOf("wave(0.25)"), 1) << "as older shows say it";
  EXPECT_FLOAT_EQ(valueOf("wave = 2\nlight = wave / 4"), 0.5f) << "a name of one's own";
  EXPECT_FLOAT_EQ(valueOf("band(2)"), 0.2f);
  EXPECT_FLOAT_EQ(valueOf("half = x / 2 # a name\nlight = half + half"), 0.25f);
}

TEST(Formula, SaysWhereAMistakeIs) {
  EXPECT_EQ(mistakeAt("x + "), 4u);
  EXPECT_EQ(mistakeAt("x + sunn(2)"), 4u);
  EXPECT_EQ(mistakeAt("sin(x"), 5u);
  EXPECT_EQ(mistakeAt("mix(x, y)"), 8u);
  EXPECT_EQ(mistakeAt("x $ y"), 2u);
  EXPECT_EQ(mistakeAt("x = 2"), 0u);
  EXPECT_EQ(mistakeAt("q = 2"), 5u) << "nothing is lit";
  EXPECT_EQ(mistakeAt("x y"), 2u);
}

TEST(Formula, NeverBreaksWhateverItComputes) {
  for (const char* text :
       {"1 / 0", "0 % 0", "sqrt(-1)", "log(0)", "(-8) ^ 0.5", "exp(1000)", "9 ^ 999", "noise(1 / (x - x), 3)",
        "chance(exp(99), -1)", "band(-5)", "band(99)", "smooth(1, 1, 1)", "pulse(exp(90), 1)"}) {
    const float v = valueOf(text);
    EXPECT_TRUE(v >= 0 && v <= 1) << text;
  }
}

TEST(Formula, AnyLettersGiveAProgramOrAMistakeWithinThem) {
  std::mt19937 random(5);
  const std::string letters = "xyt01.5+-*/%^()<>=,; \n#sincowavemixifandort\"\\$\xc3\xa9";
  for (int i = 0; i < 20'000; ++i) {
    std::string text;
    for (auto n = random() % 40; n > 0; --n) text += letters[random() % letters.size()];
    Mistake mistake;
    if (compile(text, mistake)) {
      const float v = valueOf(text);
      ASSERT_TRUE(v >= 0 && v <= 1) << text;
    } else {
      ASSERT_LE(mistake.at, text.size()) << text;
    }
  }
}

TEST(Formula, IsBoundedInDepthAndLength) {
  Mistake mistake;
  EXPECT_FALSE(compile(std::string(5000, '('), mistake));
  EXPECT_FALSE(compile(std::string(5000, '-') + "1", mistake));
  std::string longOne = "x";
  for (int i = 0; i < 500; ++i) longOne += " + x";
  EXPECT_FALSE(compile(longOne, mistake));
}

}  // namespace
}  // namespace chispa::formula
