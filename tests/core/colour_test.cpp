// SPDX-License-Identifier: GPL-3.0-or-later
#include <gtest/gtest.h>

#include "core/colour/lightness.h"
#include "core/colour/oklch.h"
#include "core/colour/srgbtable.h"

namespace chispa {
namespace {

TEST(Rgb, SrgbBytesSurviveLinearLight) {
  for (int value = 0; value < 256; ++value) {
    const auto byte = static_cast<std::uint8_t>(value);
    const Srgb8 colour{byte, static_cast<std::uint8_t>(255 - value), 17};
    EXPECT_EQ(toSrgb8(toLinear(colour)), colour);
  }
}

TEST(Rgb, MiddleGreyOfScreensIsAFifthOfTheLight) {
  // IEC 61966-2-1: 128/255 encoded is 0.2159 linear.
  EXPECT_NEAR(linearFromSrgb(128 / 255.f), 0.2159f, 1e-4f);
}

TEST(Rgb, OkLabOfWhiteIsFullyLightAndNeutral) {
  const OkLab white = toOkLab({1, 1, 1});
  EXPECT_NEAR(white.lightness, 1, 1e-4);
  EXPECT_NEAR(white.a, 0, 1e-4);
  EXPECT_NEAR(white.b, 0, 1e-4);
}

TEST(Rgb, OkLabOfRedIsThePublishedValue) {
  // B. Ottosson's example table: linear sRGB red → L 0.628, a 0.225, b 0.126.
  const OkLab red = toOkLab({1, 0, 0});
  EXPECT_NEAR(red.lightness, 0.6280f, 1e-3);
  EXPECT_NEAR(red.a, 0.2249f, 1e-3);
  EXPECT_NEAR(red.b, 0.1258f, 1e-3);
}

TEST(Rgb, OkLabComesBack) {
  for (const Rgb colour : {Rgb{0.2f, 0.7f, 0.1f}, Rgb{0.9f, 0.01f, 0.4f}, Rgb{0, 0, 0}}) {
    const Rgb back = fromOkLab(toOkLab(colour));
    EXPECT_NEAR(back.r, colour.r, 1e-3);
    EXPECT_NEAR(back.g, colour.g, 1e-3);
    EXPECT_NEAR(back.b, colour.b, 1e-3);
  }
}

TEST(Rgb, HexTextIsReadStrictly) {
  EXPECT_EQ(parseHex("#ff8000"), (Srgb8{255, 128, 0}));
  EXPECT_EQ(hexText({255, 128, 0}), "#ff8000");
  for (const char* wrong : {"", "ff8000", "#ff80", "#ff80zz", "#ff80000", "#-f8000"})
    EXPECT_FALSE(parseHex(wrong)) << wrong;
}

Palette redToBlue() {
  return {PaletteId{1}, "Test", {{0.25, {255, 0, 0}}, {0.75, {0, 0, 255}}}};
}

TEST(Palette, TakesTheEndsColourOutsideItsStops) {
  EXPECT_EQ(toSrgb8(colourAt(redToBlue(), 0)), (Srgb8{255, 0, 0}));
  EXPECT_EQ(toSrgb8(colourAt(redToBlue(), 1)), (Srgb8{0, 0, 255}));
}

TEST(Palette, MiddleIsHalfWayInOkLab) {
  const OkLab middle = toOkLab(colourAt(redToBlue(), 0.5));
  const OkLab red = toOkLab({1, 0, 0});
  const OkLab blue = toOkLab({0, 0, 1});
  EXPECT_NEAR(middle.lightness, (red.lightness + blue.lightness) / 2, 2e-3);
}

TEST(Palette, AlongTheHueOppositeColoursKeepTheirChroma) {
  Palette palette{{}, "Opposites", {{0, {220, 60, 30}}, {1, {30, 140, 200}}}};
  const auto least = [&] {
    double chroma = 1;
    for (int i = 0; i <= 100; ++i) chroma = std::min(chroma, toOkLch(colourAt(palette, i / 100.0)).chroma);
    return chroma;
  };
  EXPECT_LT(least(), 0.04) << "straight through grey";
  const auto hues = [&] {
    double sum = 0;
    for (int i = 0; i < 100; ++i)
      sum += std::abs(std::remainder(
          toOkLch(colourAt(palette, (i + 1) / 100.0)).hue_deg - toOkLch(colourAt(palette, i / 100.0)).hue_deg,
          360));
    return sum;
  };
  palette.path = PalettePath::ShorterHue;
  EXPECT_GT(least(), 0.09);
  const double shorter = hues();
  palette.path = PalettePath::LongerHue;
  EXPECT_GT(least(), 0.08);
  EXPECT_LT(shorter, 180);
  EXPECT_NEAR(shorter + hues(), 360, 3);
  EXPECT_EQ(colourAt(palette, 0), toLinear(palette.stops[0].colour)) << "the stops stay what they are";
  EXPECT_EQ(colourAt(palette, 1), toLinear(palette.stops[1].colour));
}

TEST(Palette, WhatHasNoHueTakesTheOthers) {
  for (const PalettePath path : {PalettePath::ShorterHue, PalettePath::LongerHue}) {
    const Palette palette{{}, "Rose", {{0, {255, 255, 255}}, {1, {220, 30, 90}}}, path};
    const double wanted = toOkLch(palette.stops[1].colour).hue_deg;
    for (int i = 20; i <= 100; ++i)
      EXPECT_NEAR(std::remainder(toOkLch(colourAt(palette, i / 100.0)).hue_deg - wanted, 360), 0, 1.5) << i;
  }
}

TEST(Palette, StraightenedHasTheSameColours) {
  const Palette palette{
      {}, "Opposites", {{0.1, {220, 60, 30}}, {0.9, {30, 140, 200}}}, PalettePath::LongerHue};
  const Palette straight = straightened(palette);
  EXPECT_EQ(straight.path, PalettePath::Straight);
  for (int i = 0; i <= 64; ++i) {
    const OkLab a = toOkLab(colourAt(palette, i / 64.0));
    const OkLab b = toOkLab(colourAt(straight, i / 64.0));
    EXPECT_LT(std::hypot(std::hypot(a.lightness - b.lightness, a.a - b.a), a.b - b.b), 0.03f) << i;
  }
}

/// L* of CIE 1976: known values, and there and back.
TEST(Lightness, IsThatOfCie1976) {
  EXPECT_NEAR(lightnessOf(0.184f), 0.5f, 1e-3f);
  EXPECT_NEAR(lightnessOf(1.f), 1.f, 1e-5f);
  EXPECT_EQ(lightnessOf(0.f), 0.f);
  EXPECT_NEAR(lightnessOf(216.f / 24389), 0.08f, 1e-5f);
  for (int i = 0; i <= 1200; ++i) {
    const float level = static_cast<float>(i) / 1000;
    EXPECT_NEAR(lightnessOf(lightOfLightness(level)), level, 2e-5f);
    EXPECT_GT(lightOfLightness(level + 0.001f), lightOfLightness(level));
  }
}

TEST(SrgbTable, IsWithinAValueOfTheFormula) {
  for (int i = 0; i <= 10'000; ++i) {
    const float light = static_cast<float>(i) / 10'000;
    EXPECT_NEAR(SrgbTable::get().value(light), toSrgb8({light, light, light}).g, 1) << light;
  }
  EXPECT_EQ(SrgbTable::get().value(2.f), 255);
  EXPECT_EQ(SrgbTable::get().value(-1.f), 0);
}

TEST(Palette, WithoutStopsIsBlack) {
  EXPECT_EQ(colourAt({}, 0.5), (Rgb{0, 0, 0}));
}

TEST(PaletteTable, ManyPlacesAtOnceAreThoseOfEachByItself) {
  const PaletteTable table(redToBlue());
  std::vector<float> places, strengths;
  for (int i = 0; i < 333; ++i) {
    places.push_back(static_cast<float>(i) * 0.0173f - 2.1f);
    strengths.push_back(static_cast<float>(i % 7) / 6);
  }
  std::vector<float> r(places.size()), g(r), b(r);
  for (const bool isLoop : {false, true}) {
    if (isLoop)
      table.wrapped(places.data(), strengths.data(), places.size(), r.data(), g.data(), b.data());
    else
      table.clamped(places.data(), strengths.data(), places.size(), r.data(), g.data(), b.data());
    for (std::size_t i = 0; i < places.size(); ++i) {
      const Rgb one = isLoop ? table.wrapped(places[i]) : table.clamped(places[i]);
      ASSERT_EQ((Rgb{r[i], g[i], b[i]}),
                (Rgb{one.r * strengths[i], one.g * strengths[i], one.b * strengths[i]}))
          << places[i];
    }
  }
}

TEST(PaletteTable, WhatIsNoNumberIsTheFirstColour) {
  EXPECT_EQ(PaletteTable(redToBlue()).clamped(std::nanf("")), PaletteTable(redToBlue()).clamped(0));
}

TEST(PaletteTable, WrappedHasNoSeam) {
  const PaletteTable table(redToBlue());
  const Rgb end = table.wrapped(0.9999f);
  const Rgb start = table.wrapped(0);
  EXPECT_NEAR(end.r, start.r, 0.05);
  EXPECT_NEAR(end.b, start.b, 0.05);
  EXPECT_EQ(table.wrapped(-0.25f), table.wrapped(0.75f));
  EXPECT_EQ(table.wrapped(3.25f), table.wrapped(0.25f));
}

}  // namespace
}  // namespace chispa
