// SPDX-License-Identifier: GPL-3.0-or-later
// Dimming curves: powers, drawn ones, a smallest value; and the values that strips are sent for them.
#include "core/show/response.h"

#include <cmath>

#include "boardshow.h"
#include <gtest/gtest.h>

#include "core/files/showjson.h"
#include "core/wire/pack.h"

namespace chispa {
namespace {

const Response kDrawn{1, {{0.25, 0.05}, {0.5, 0.3}, {0.8, 0.3}, {0.9, 0.9}}, 0};

const Response kRising{1, {{0.25, 0.05}, {0.5, 0.3}, {0.8, 0.35}, {0.9, 0.9}}, 0};

TEST(Response, ValueAndLightAreEachOthersWayBack) {
  for (const Response& response : {Response{}, Response{2.2}, Response{0.5}, kDrawn})
    for (int i = 0; i <= 100; ++i) {
      const double light = i / 100.0;
      EXPECT_NEAR(response.lightOf(response.valueOf(light)), light, 1e-9) << i;
    }
}

TEST(Response, ADrawnCurveIsStraightBetweenItsPointsAndItsEnds) {
  EXPECT_DOUBLE_EQ(kDrawn.lightOf(0.125), 0.025);
  EXPECT_DOUBLE_EQ(kDrawn.lightOf(0.65), 0.3);
  EXPECT_DOUBLE_EQ(kDrawn.lightOf(0.95), 0.95);
  EXPECT_DOUBLE_EQ(kDrawn.valueOf(0.3), 0.5) << "the least value of that light";
  EXPECT_DOUBLE_EQ(kDrawn.lightOf(1), 1);
}

TEST(Response, BelowTheSmallestValueItIsDarkOrAtIt) {
  const Response response{2, {}, 0.1};
  EXPECT_EQ(response.lightOf(0.09), 0);
  EXPECT_EQ(response.valueOf(0.004), 0);
  EXPECT_EQ(response.valueOf(0.006), 0.1);
  EXPECT_EQ(response.valueOf(0.04), 0.2);
}

/// The values of a slow fade from dark, 16 bit and 8 bit: each is the nearest to what the curve asks for.
TEST(ResponseTable, IsExactFromTheDimmestLightOn) {
  for (const Response& response : {Response{}, Response{2.2}, Response{1.8}, Response{0.7}}) {
    const ResponseTable table(response);
    double worst_lsb = 0, worst_8bit = 0;
    for (int i = 0; i < 40'000; ++i) {
      const double light = 1e-10 * std::pow(10.0, i / 4'000.0);
      const double wanted = response.valueOf(light);
      worst_lsb = std::max(worst_lsb, std::abs(table.wideValue(static_cast<float>(light)) - wanted * 65'535));
      double mean = 0;
      for (std::uint32_t dither = 8; dither < 256; dither += 16)
        mean += table.value(static_cast<float>(light), dither) / 16.0;
      worst_8bit = std::max(worst_8bit, std::abs(mean - wanted * 255));
    }
    // Half a step is rounding.
    EXPECT_LE(worst_lsb, 0.75) << response.exponent;
    EXPECT_LE(worst_8bit, 1 / 32.0 + 1 / 256.0) << response.exponent;
  }
}

/// A drawn curve has bends; between two entries of the table they are a little rounded.
TEST(ResponseTable, ADrawnCurveIsFollowed) {
  const ResponseTable table(kRising);
  for (int i = 0; i <= 10'000; ++i) {
    const double light = i / 10'000.0;
    EXPECT_NEAR(kRising.lightOf(table.wideValue(static_cast<float>(light)) / 65'535.0), light, 5e-4) << light;
  }
}

TEST(ResponseTable, AFadeBeginsAtTheFirstStep) {
  const ResponseTable table(Response{2.2});
  int last = 0;
  for (int i = 0; i <= 20'000; ++i) {
    // 0 to 2 % of light in even steps to the eye.
    const auto light = static_cast<float>(0.02 * std::pow(i / 20'000.0, 2.2));
    const int value = table.wideValue(light);
    EXPECT_LE(value - last, 1) << i;
    last = value;
  }
  EXPECT_GT(last, 10'000);
}

TEST(ResponseTable, NeverWritesWhatDoesNotLight) {
  const Response response{2.2, {}, 5 / 255.0};
  const ResponseTable table(response);
  for (int i = 0; i <= 5'000; ++i)
    for (const std::uint32_t dither : {8u, 128u, 248u}) {
      const int value = table.value(static_cast<float>(i / 5'000.0 * 0.01), dither);
      EXPECT_TRUE(value == 0 || value >= 5) << value;
    }
}

TEST(Response, IsKeptInFilesAsANumberOrWithItsPoints) {
  Show show = test::BoardShow(LineShape{10, 0.1}).show;
  const auto strip = show.stripTypes.front()->id;
  changeItem(show.stripTypes, strip, [](StripType& s) {
    s.response = kDrawn;
    s.chips = ChipColours{{0.69, 0.31}, {0.17, 0.72}, {0.135, 0.055}, {0.44, 0.40}, 1.5};
  });
  changeItem(show.fixtures, show.fixtures.front()->id, [](Fixture& f) {
    f.response = Response{2.2, {}, 3 / 255.0};
  });
  const std::string text = showText(show);
  const auto again = parseShow(text, "show");
  ASSERT_TRUE(again) << again.failure().text();
  EXPECT_EQ(*again, show);
  changeItem(show.stripTypes, strip, [](StripType& s) { s.response = {2.2}; });
  EXPECT_NE(showText(show).find("\"response\": 2.2"), std::string::npos);
}

TEST(Response, OneThatFallsIsUnread) {
  Show show = test::BoardShow(LineShape{10, 0.1}).show;
  changeItem(show.fixtures, show.fixtures.front()->id, [](Fixture& f) {
    f.response = Response{1, {{0.2, 0.6}, {0.5, 0.4}}, 0};
  });
  const auto again = parseShow(showText(show), "show");
  ASSERT_TRUE(again);
  EXPECT_FALSE(again->unread.empty());
}

}  // namespace
}  // namespace chispa
