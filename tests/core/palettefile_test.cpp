// SPDX-License-Identifier: GPL-3.0-or-later
#include <gtest/gtest.h>

#include <array>
#include <cmath>

#include "core/colour/oklch.h"
#include "core/colour/palettefile.h"

namespace chispa {
namespace {

Palette ember() { return {PaletteId{}, "Ember", {{0, {26, 2, 5}}, {0.25, {224, 72, 14}}, {1, {255, 240, 200}}}}; }

class PaletteFiles : public testing::TestWithParam<PaletteFormat> {};

TEST_P(PaletteFiles, ComeBackAsTheyWent) {
  const auto read = parsePalette(paletteText(ember(), GetParam()), GetParam(), "other");
  ASSERT_TRUE(read) << read.failure().text();
  ASSERT_EQ(read->stops.size(), 3u);
  for (std::size_t i = 0; i < 3; ++i) {
    EXPECT_EQ(read->stops[i].colour, ember().stops[i].colour);
    // A palette of swatches has no places.
    EXPECT_NEAR(read->stops[i].at, GetParam() == PaletteFormat::Gpl ? 0.5 * static_cast<double>(i) : ember().stops[i].at, 1e-5);
  }
}

TEST_P(PaletteFiles, NonsenseIsRefusedOrRead) {
  for (const char* text : {"", "nonsense", "1 2", "<svg>", "gradient(", "0 0 0 0 0 0 0 0 0 0 0 0 0", "nan nan nan nan nan nan nan nan nan nan nan", "-1e300 1 1 1 1e300 2 2 2"}) {
    const auto read = parsePalette(text, GetParam(), "x");
    if (!read) continue;
    for (const ColourStop& stop : read->stops) EXPECT_TRUE(stop.at >= 0 && stop.at <= 1) << text;
  }
}

INSTANTIATE_TEST_SUITE_P(Formats, PaletteFiles, testing::Values(PaletteFormat::Gpl, PaletteFormat::Ggr, PaletteFormat::Cpt, PaletteFormat::Svg, PaletteFormat::Css));

TEST(PaletteFile, CssTakesShortColoursAndNoPlaces) {
  const auto read = parsePalette("a { background: linear-gradient(90deg, #f00, rgb(0, 255, 0), #0000ff); }", PaletteFormat::Css, "x");
  ASSERT_TRUE(read);
  ASSERT_EQ(read->stops.size(), 3u);
  EXPECT_EQ(read->stops[1].colour, (Srgb8{0, 255, 0}));
  EXPECT_DOUBLE_EQ(read->stops[1].at, 0.5);
}

TEST(OkLch, ComesBackAsItWentAndStaysInTheGamut) {
  for (int r = 0; r < 256; r += 51)
    for (int g = 0; g < 256; g += 51)
      for (int b = 0; b < 256; b += 51) {
        const Srgb8 c{static_cast<std::uint8_t>(r), static_cast<std::uint8_t>(g), static_cast<std::uint8_t>(b)};
        const Srgb8 back = fromOkLch(toOkLch(c));
        EXPECT_NEAR(back.r, c.r, 3);
        EXPECT_NEAR(back.g, c.g, 3);
        EXPECT_NEAR(back.b, c.b, 3);
      }
  const OkLch cut = toOkLch(fromOkLch({0.7, 0.5, 200}));
  EXPECT_NEAR(cut.hue_deg, 200, 4) << "the hue stays when the chroma is cut";
}

TEST(Harmony, OppositesLieAcrossTheWheel) {
  const auto stops = harmonyOf({224, 72, 14}, Harmony::Opposites);
  const double off = std::fmod(toOkLch(stops[2].colour).hue_deg - toOkLch(stops[0].colour).hue_deg + 360, 360);
  EXPECT_NEAR(off, 180, 12);
  EXPECT_LT(toOkLch(harmonyOf({224, 72, 14}, Harmony::OneHue)[0].colour).lightness, 0.3);
}

TEST(RandomStops, StayWithinTheirRangeOfHues) {
  for (const ColourStop& stop : randomStops(200, 60, 8, 3)) EXPECT_NEAR(toOkLch(stop.colour).hue_deg, 200, 36);
  EXPECT_EQ(randomStops(10, 60, 5, 3), randomStops(10, 60, 5, 3));
}

TEST(StopsOfPicture, AreItsColours) {
  std::vector<std::uint8_t> rgba;
  for (int i = 0; i < 300; ++i)
    for (const int v : i % 3 == 0 ? std::array{250, 10, 10, 255} : i % 3 == 1 ? std::array{10, 10, 120, 255} : std::array{240, 240, 230, 255}) rgba.push_back(static_cast<std::uint8_t>(v));
  const auto stops = stopsOfPicture(rgba, 3);
  ASSERT_EQ(stops.size(), 3u);
  EXPECT_EQ(stops[0].colour, (Srgb8{10, 10, 120}));
  EXPECT_EQ(stops[2].colour, (Srgb8{240, 240, 230}));
}

}  // namespace
}  // namespace chispa
