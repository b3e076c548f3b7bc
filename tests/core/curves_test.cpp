// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/curves.h"

#include <numbers>
#include <set>

#include <gtest/gtest.h>

namespace chispa {
namespace {

TEST(Curves, WavesAgreeWithTheLibrary) {
  for (double turns = -40; turns < 40; turns += 0.00731) {
    const double angle = 2 * std::numbers::pi * static_cast<double>(static_cast<float>(turns));
    // Far from 0 a quarter turn less is not a number of its own any more.
    const double finest = std::numbers::pi * std::abs(turns) * 0x1p-23;
    ASSERT_NEAR(cosineOfTurns(static_cast<float>(turns)), std::cos(angle), 5e-6) << turns;
    ASSERT_NEAR(sineOfTurns(static_cast<float>(turns)), std::sin(angle), 5e-6 + finest) << turns;
  }
}

TEST(Curves, ExponentialsAgreeWithTheLibraryAndAreHeldAtTheirEnds) {
  for (float x = -60; x < 60; x += 0.0137f) {
    ASSERT_NEAR(exponential2(x) / std::exp2(x), 1, 4e-7) << x;
    ASSERT_NEAR(exponential(x) / std::exp(x), 1, 2e-5) << x;
  }
  for (const float x : {-1e9f, 1e9f}) EXPECT_TRUE(std::isnormal(exponential2(x)));
}

TEST(Curves, LogarithmsAndPowersAgreeWithTheLibrary) {
  for (double x = 1e-30; x < 1e30; x *= 1.37)
    ASSERT_NEAR(logarithm2(static_cast<float>(x)), std::log2(x), 1e-5 * std::max(1.0, std::abs(std::log2(x))))
        << x;
  for (float base = 0; base <= 1; base += 0.013f)
    for (float exponent = 0.3f; exponent < 12; exponent += 0.7f)
      ASSERT_NEAR(powerOf(base, exponent), std::pow(base, exponent), 1e-5) << base << " " << exponent;
  EXPECT_EQ(powerOf(0, 2), 0);
}

TEST(Curves, FractionsLieBelowOne) {
  for (const float x : {0.f, -0.f, 0.25f, -0.25f, -1e-12f, 7.999999f, -3.f, 1e9f}) {
    EXPECT_TRUE(fraction(x) >= 0 && fraction(x) < 1) << x;
    EXPECT_TRUE(fraction(static_cast<double>(x)) >= 0 && fraction(static_cast<double>(x)) < 1) << x;
  }
}

TEST(Curves, WhatIsNoNumberIsHeldToTheLowerBound) {
  EXPECT_EQ(within(0, 1, std::nanf("")), 0);
  EXPECT_EQ(within(0, 1, 4), 1);
  EXPECT_EQ(within(0, 1, 0.3f), 0.3f);
}

TEST(Noise, PassesThroughTheSameChanceFromBothSidesAndStaysWithinBounds) {
  for (int k = -50; k < 50; ++k) {
    const double x = k * 0.73;
    EXPECT_NEAR(noise(9, std::floor(x) - 1e-6, x), noise(9, std::floor(x) + 1e-6, x), 1e-4) << k;
    for (double y = -3; y < 3; y += 0.21) ASSERT_TRUE(noise(9, x, y) >= 0 && noise(9, x, y) < 1);
  }
  EXPECT_TRUE(std::isfinite(noise(1, 1e300, -1e300)));
}

TEST(Noise, IsEvenlySpreadAndAnotherForEachSeed) {
  double sum = 0;
  double product = 0;
  std::set<float> values;
  constexpr int kSide = 100;
  for (int x = 0; x < kSide; ++x)
    for (int y = 0; y < kSide; ++y) {
      const float one = noise(1, x, y);
      sum += static_cast<double>(one);
      product += (static_cast<double>(one) - 0.5) * (static_cast<double>(noise(1, x + 1, y)) - 0.5);
      values.insert(one);
    }
  EXPECT_NEAR(sum / (kSide * kSide), 0.5, 0.01);
  EXPECT_NEAR(product / (kSide * kSide), 0, 0.004) << "neighbours are unrelated";
  EXPECT_GT(values.size(), 9900u);
  EXPECT_NE(noise(1, 3, 4), noise(2, 3, 4));
}

}  // namespace
}  // namespace chispa
