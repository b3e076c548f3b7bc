// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/files/palettefile.h"

#include <array>
#include <cmath>
#include <vector>

#include <gtest/gtest.h>

#include "core/colour/oklch.h"

namespace chispa {
namespace {

Palette ember() {
  return {PaletteId{}, "Ember", {{0, {26, 2, 5}}, {0.25, {224, 72, 14}}, {1, {255, 240, 200}}}};
}

class PaletteFiles : public testing::TestWithParam<PaletteFormat> {};

TEST_P(PaletteFiles, ComeBackAsTheyWent) {
  const auto read = parsePalette(paletteText(ember(), GetParam()), GetParam(), "other");
  ASSERT_TRUE(read) << read.failure().text();
  ASSERT_EQ(read->stops.size(), 3u);
  for (std::size_t i = 0; i < 3; ++i) {
    EXPECT_EQ(read->stops[i].colour, ember().stops[i].colour);
    // A palette of swatches has no places.
    EXPECT_NEAR(read->stops[i].at,
                GetParam() == PaletteFormat::Gpl ? 0.5 * static_cast<double>(i) : ember().stops[i].at, 1e-5);
  }
}

TEST_P(PaletteFiles, NonsenseIsRefusedOrRead) {
  for (const char* text : {"", "nonsense", "1 2", "<svg>", "gradient(", "0 0 0 0 0 0 0 0 0 0 0 0 0",
                           "nan nan nan nan nan nan nan nan nan nan nan", "-1e300 1 1 1 1e300 2 2 2"}) {
    const auto read = parsePalette(text, GetParam(), "x");
    if (!read) continue;
    for (const ColourStop& stop : read->stops) EXPECT_TRUE(stop.at >= 0 && stop.at <= 1) << text;
  }
}

INSTANTIATE_TEST_SUITE_P(Formats, PaletteFiles,
                         testing::Values(PaletteFormat::Gpl, PaletteFormat::Ggr, PaletteFormat::Cpt,
                                         PaletteFormat::Svg, PaletteFormat::Css));

TEST(PaletteFile, CssTakesShortColoursAndNoPlaces) {
  const auto read = parsePalette("a { background: linear-gradient(90deg, #f00, rgb(0, 255, 0), #0000ff); }",
                                 PaletteFormat::Css, "x");
  ASSERT_TRUE(read);
  ASSERT_EQ(read->stops.size(), 3u);
  EXPECT_EQ(read->stops[1].colour, (Srgb8{0, 255, 0}));
  EXPECT_DOUBLE_EQ(read->stops[1].at, 0.5);
}

TEST(PaletteFile, CssPlacesStopsAsBrowsersDo) {
  const auto read = parsePalette(
      "background: conic-gradient(from 90deg at 50% 50%, red, hsl(120deg 100% 50%) 25%, RGB(0 0 255 / 50%), "
      "#fff8 50% 75%, rebeccapurple);",
      PaletteFormat::Css, "x");
  ASSERT_TRUE(read) << read.failure().text();
  const std::vector<ColourStop> wanted = {{0, {255, 0, 0}},        {0.25, {0, 255, 0}},
                                          {0.375, {0, 0, 255}},    {0.5, {255, 255, 255}},
                                          {0.75, {255, 255, 255}}, {1, {102, 51, 153}}};
  EXPECT_EQ(read->stops, wanted);
}

TEST(PaletteFile, SvgTakesNamesStylesAndPercents) {
  const auto read = parsePalette(
      R"svg(<svg xmlns="http://www.w3.org/2000/svg"><defs><linearGradient id="dusk"><stop offset="0" stop-color="NavajoWhite"/>
    <stop offset="40%" style="stop-opacity:0.5; stop-color: rgb(10%, 20%, 30%)"/><stop offset=".3"/></linearGradient></defs></svg>)svg",
      PaletteFormat::Svg, "x");
  ASSERT_TRUE(read);
  EXPECT_EQ(read->name, "dusk");
  EXPECT_EQ(read->stops,
            (std::vector<ColourStop>{{0, {255, 222, 173}}, {0.4, {26, 51, 77}}, {0.4, {0, 0, 0}}}));
}

struct Table {
  const char* what;
  const char* text;
  std::vector<ColourStop> stops;
};

class ColourTables : public testing::TestWithParam<Table> {};

TEST_P(ColourTables, EveryFormOfASliceIsRead) {
  const auto read = parsePalette(GetParam().text, PaletteFormat::Cpt, "x");
  ASSERT_TRUE(read) << GetParam().what << ": " << read.failure().text();
  EXPECT_EQ(read->stops, GetParam().stops) << GetParam().what;
}

INSTANTIATE_TEST_SUITE_P(
    Forms, ColourTables,
    testing::Values(
        Table{"columns",
              "-8000 0 0 0 0 255 128 0\nB 1 1 1\nF 2 2 2\nN 3 3 3",
              {{0, {0, 0, 0}}, {1, {255, 128, 0}}}},
        Table{"slashes and a name behind them", "0 1/2/3 1 4/5/6 ;deep", {{0, {1, 2, 3}}, {1, {4, 5, 6}}}},
        Table{"names and annotations",
              "0 blue 2 seagreen L\n2 red 4 gray50 B",
              {{0, {0, 0, 255}}, {0.5, {46, 139, 87}}, {0.5, {255, 0, 0}}, {1, {128, 128, 128}}}},
        Table{"greys", "0 0 10 255", {{0, {0, 0, 0}}, {1, {255, 255, 255}}}},
        Table{"hex and clearness", "0 #ff0000@50 1 #0000ff", {{0, {255, 0, 0}}, {1, {0, 0, 255}}}},
        Table{"categories",
              "# COLOR_MODEL = RGB\n0 1/2/3 ;sand\n1 green ;grass\n7 4/5/6",
              {{0, {1, 2, 3}}, {0.5, {0, 128, 0}}, {1, {4, 5, 6}}}},
        Table{"categories by word", "sand 1/2/3\ngrass 4/5/6", {{0, {1, 2, 3}}, {1, {4, 5, 6}}}},
        Table{"ink",
              "# COLOR_MODEL = CMYK\n0 0 100 100 0 1 100 0 0 0",
              {{0, {255, 0, 0}}, {1, {0, 255, 255}}}}));

TEST(PaletteFile, HuesOfATableRunAlongTheWheel) {
  for (const char* text : {"0 0-1-1 1 360-1-1", "# COLOR_MODEL = +HSV\n0 0 1 1 1 360 1 1"}) {
    const auto read = parsePalette(text, PaletteFormat::Cpt, "x");
    ASSERT_TRUE(read);
    EXPECT_EQ(toSrgb8(colourAt(*read, 0.5)), (Srgb8{0, 255, 255})) << "cyan in the middle";
  }
}

TEST(PaletteFile, AGradientsMiddleAndBendAreKept) {
  const std::string head = "GIMP Gradient\nName: Bend\n1\n";
  const auto off = parsePalette(head + "0 0.25 1 0 0 0 1 1 1 1 1 0 0", PaletteFormat::Ggr, "x");
  ASSERT_TRUE(off);
  EXPECT_EQ(off->stops,
            (std::vector<ColourStop>{{0, {0, 0, 0}}, {0.25, {128, 128, 128}}, {1, {255, 255, 255}}}));
  const auto step = parsePalette(head + "0 0.5 1 1 0 0 1 0 0 1 1 5 0", PaletteFormat::Ggr, "x");
  ASSERT_TRUE(step);
  EXPECT_EQ(step->stops[1].colour, (Srgb8{255, 0, 0}));
  EXPECT_EQ(step->stops[2].at, 0.5);
  const auto hue = parsePalette(head + "0 0.5 1 1 0 0 1 0 0 1 1 0 1", PaletteFormat::Ggr, "x");
  ASSERT_TRUE(hue);
  EXPECT_EQ(toSrgb8(colourAt(*hue, 0.5)), (Srgb8{0, 255, 0}))
      << "up the wheel from red to blue goes through green";
}

TEST(PaletteFile, BlanksWithoutEndAreNoTrouble) {
  for (const PaletteFormat format :
       {PaletteFormat::Gpl, PaletteFormat::Ggr, PaletteFormat::Cpt, PaletteFormat::Svg, PaletteFormat::Css})
    for (const std::string& text :
         {"GIMP Palette\nName: " + std::string(300'000, ' ') + "x",
          "linear-gradient(" + std::string(300'000, ' '), "linear-gradient(" + std::string(300'000, '('),
          std::string(300'000, '<')})
      EXPECT_FALSE(parsePalette(text, format, "x"));
}

/// Colour tables that nobody here made: those that a plotting package brings along.
TEST(PaletteFile, RealColourTablesAreRead) {
  const std::filesystem::path folder = "/usr/share/gmt/cpt";
  if (!std::filesystem::exists(folder)) GTEST_SKIP() << "gmt-common is not installed";
  int files = 0;
  for (const auto& entry : std::filesystem::recursive_directory_iterator(folder)) {
    if (entry.path().extension() != ".cpt") continue;
    const auto read = readPalette(entry.path());
    ASSERT_TRUE(read) << read.failure().text();
    EXPECT_GE(read->stops.size(), 2u) << entry.path();
    EXPECT_EQ(read->stops.front().at, 0) << entry.path();
    EXPECT_EQ(read->stops.back().at, 1) << entry.path();
    ++files;
  }
  EXPECT_GE(files, 100);
}

TEST(OkLch, ComesBackAsItWentAndStaysInTheGamut) {
  for (int r = 0; r < 256; r += 51)
    for (int g = 0; g < 256; g += 51)
      for (int b = 0; b < 256; b += 51) {
        const Srgb8 c{static_cast<std::uint8_t>(r), static_cast<std::uint8_t>(g),
                      static_cast<std::uint8_t>(b)};
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
  const double off =
      std::fmod(toOkLch(stops[2].colour).hue_deg - toOkLch(stops[0].colour).hue_deg + 360, 360);
  EXPECT_NEAR(off, 180, 12);
  EXPECT_LT(toOkLch(harmonyOf({224, 72, 14}, Harmony::OneHue)[0].colour).lightness, 0.3);
}

TEST(RandomStops, StayWithinTheirRangeOfHues) {
  for (const ColourStop& stop : randomStops(200, 60, 8, 3))
    EXPECT_NEAR(toOkLch(stop.colour).hue_deg, 200, 36);
  EXPECT_EQ(randomStops(10, 60, 5, 3), randomStops(10, 60, 5, 3));
}

TEST(StopsOfPicture, AreItsColours) {
  std::vector<std::uint8_t> rgba;
  for (int i = 0; i < 300; ++i)
    for (const int v : i % 3 == 0   ? std::array{250, 10, 10, 255}
                       : i % 3 == 1 ? std::array{10, 10, 120, 255}
                                    : std::array{240, 240, 230, 255})
      rgba.push_back(static_cast<std::uint8_t>(v));
  const auto stops = stopsOfPicture(rgba, 3);
  ASSERT_EQ(stops.size(), 3u);
  EXPECT_EQ(stops[0].colour, (Srgb8{10, 10, 120}));
  EXPECT_EQ(stops[2].colour, (Srgb8{240, 240, 230}));
}

}  // namespace
}  // namespace chispa
