// SPDX-License-Identifier: GPL-3.0-or-later
// Colours on strips whose chips are not a screen's: what leaves a simulated strip is compared with what was
// meant, by spectra that the program does not know.
#include "core/colour/chipcolours.h"

#include <cmath>
#include <random>

#include <gtest/gtest.h>

#include "core/colour/difference.h"
#include "core/colour/oklch.h"
#include "core/colour/whitepoint.h"
#include "core/files/stripkinds.h"
#include "core/show/chipmix.h"
#include "core/show/striptype.h"

namespace chispa {
namespace {

TEST(Chromaticity, KnownWhitesAndWavelengths) {
  // CIE 15:2018: D65, illuminant A; ITU-R BT.709.
  EXPECT_NEAR(chromaticityOfTemperature(6504).x, 0.3127, 0.0005);
  EXPECT_NEAR(chromaticityOfTemperature(6504).y, 0.3291, 0.0005);
  EXPECT_NEAR(chromaticityOfTemperature(2856).x, 0.4476, 0.001);
  EXPECT_NEAR(chromaticityOfTemperature(2856).y, 0.4074, 0.001);
  // CIE 1931 spectral locus: 520 nm 0.0743 0.8338, 620 nm 0.6915 0.3083; the fit is a little off.
  const Chromaticity green = chromaticityOf(observer(520)), red = chromaticityOf(observer(620));
  EXPECT_NEAR(green.x, 0.0743, 0.012);
  EXPECT_NEAR(green.y, 0.8338, 0.015);
  EXPECT_NEAR(red.x, 0.6915, 0.006);
  EXPECT_NEAR(red.y, 0.3083, 0.006);
}

TEST(Chromaticity, AnLedHasTheDominantWavelengthThatWasAskedFor) {
  for (const double nm : {460.0, 470.0, 500.0, 524.0, 590.0, 622.0}) {
    const Chromaticity at = chromaticityOfLed(nm, 25);
    ASSERT_TRUE(dominantWavelength(at)) << nm;
    EXPECT_NEAR(*dominantWavelength(at), nm, 0.5) << nm;
  }
  EXPECT_FALSE(dominantWavelength(kD65));
  EXPECT_FALSE(dominantWavelength({0.35, 0.15})) << "purple";
}

TEST(Chromaticity, IsReadAsMakersWriteIt) {
  ASSERT_TRUE(readChromaticity("622 nm"));
  EXPECT_NEAR(readChromaticity("622nm")->x, 0.695, 0.01);
  EXPECT_EQ(readChromaticity("0.31, 0.33"), (Chromaticity{0.31, 0.33}));
  EXPECT_EQ(readChromaticity(" 0.31 0.33 "), (Chromaticity{0.31, 0.33}));
  EXPECT_NEAR(readChromaticity("3000 K")->x, 0.4369, 0.002);
  for (const char* wrong :
       {"", "red", "622", "622 m", "0.8 0.4", "0.3 0.3 0.4", "-0.1 0.4", "12 nm", "nan 0.3"})
    EXPECT_FALSE(readChromaticity(wrong)) << wrong;
}

double luminance(Rgb colour) {
  return xyzOfSrgb(colour)[1];
}

/// The colour that really leaves a pixel of the strip: each chip's own light in the amount that it is driven.
Rgb leaving(const StripType& strip, Rgb wanted) {
  const ChipMix mix = strip.mix();
  auto chips = mix.light(wanted.r, wanted.g, wanted.b);
  for (const float chip : chips) {
    EXPECT_GE(chip, -1e-5f);
    EXPECT_LE(chip, 1.00001f);
  }
  return mix.colourOf(chips);
}

TEST(ChipMap, WhiteAndGreysStayWhatTheyAre) {
  for (const StripKind& kind : stripKinds()) {
    if (kind.strip.order == "W") continue;
    for (const float grey : {1.f, 0.5f, 0.01f}) {
      const Rgb seen = leaving(kind.strip, {grey, grey, grey});
      EXPECT_NEAR(seen.r, grey, 0.003f * grey + 1e-6f) << kind.strip.name;
      EXPECT_NEAR(seen.g, grey, 0.003f * grey + 1e-6f) << kind.strip.name;
      EXPECT_NEAR(seen.b, grey, 0.003f * grey + 1e-6f) << kind.strip.name;
    }
  }
}

/// Colours that the chips can mix arrive as they were meant.
TEST(ChipMap, ColoursArriveOnEveryKindOfStrip) {
  std::mt19937 random(20'261'129);
  std::uniform_real_distribution<float> part(0, 0.7f);
  for (const StripKind& kind : stripKinds()) {
    if (kind.strip.order == "W") continue;
    double sum = 0;
    int count = 0;
    for (int i = 0; i < 500; ++i) {
      const Rgb wanted{part(random), part(random), part(random)};
      const double off = deltaE2000(toCieLab(wanted), toCieLab(leaving(kind.strip, wanted)));
      sum += off;
      ++count;
    }
    EXPECT_LE(sum / count, 1.0) << kind.strip.name;
  }
}

TEST(ChipMap, WhatNoChipsMixKeepsItsHueAndLightness) {
  // A green chip that is rather yellow: sRGB's green and cyan are beyond it.
  const ChipMap map(ChipColours{{0.69, 0.31}, {0.35, 0.55}, {0.14, 0.06}});
  for (const Rgb wanted : {Rgb{0, 1, 0}, Rgb{0, 0.6f, 0.4f}, Rgb{0.1f, 0.9f, 0.2f}}) {
    const Rgb chips = map.chipsOf(wanted);
    EXPECT_GE(std::min({chips.r, chips.g, chips.b}), 0);
    const OkLab meant = toOkLab(wanted), seen = toOkLab(map.colourOf(chips));
    EXPECT_NEAR(seen.lightness, meant.lightness, 0.012f);
    EXPECT_LT(std::hypot(seen.a, seen.b), std::hypot(meant.a, meant.b));
    const double turned =
        std::remainder(std::atan2(static_cast<double>(seen.b), static_cast<double>(seen.a)) -
                           std::atan2(static_cast<double>(meant.b), static_cast<double>(meant.a)),
                       2 * M_PI);
    EXPECT_LT(std::abs(turned), 0.05) << "hue";
  }
}

TEST(ChipMap, ABrightColourIsDimmedNotChanged) {
  StripType strip = stripKinds().front().strip;
  strip.white = {1, 1, 1};
  const Rgb wanted{0, 1, 0};
  const Rgb seen = leaving(strip, wanted);
  EXPECT_LE(luminance(seen), luminance(wanted) * 1.001);
  const OkLab meant = toOkLab(wanted), got = toOkLab(seen);
  EXPECT_NEAR(got.a / got.lightness, meant.a / meant.lightness, 0.01);
  EXPECT_NEAR(got.b / got.lightness, meant.b / meant.lightness, 0.01);
}

/// As bright as it can: each colour keeps its chromaticity, its strongest chip is at full, and dimmer colours
/// are in proportion.
TEST(ChipMap, AsBrightAsItCanIsTheSameColourWithMoreLight) {
  std::mt19937 random(5);
  std::uniform_real_distribution<float> part(0, 1);
  for (const StripKind& kind : stripKinds()) {
    if (kind.strip.order.size() < 3) continue;
    StripType strip = kind.strip;
    // The map of its chips is made once for as long as it is used.
    const ChipMix held = strip.mix();
    for (int i = 0; i < 200; ++i) {
      const Rgb wanted{part(random), part(random), part(random)};
      const float top = std::max({wanted.r, wanted.g, wanted.b});
      const Rgb full{wanted.r / top, wanted.g / top, wanted.b / top};
      strip.isBrightest = false;
      const Rgb plain = leaving(strip, wanted);
      strip.isBrightest = true;
      const Rgb bright = leaving(strip, wanted);
      const auto chips = strip.mix().light(full.r, full.g, full.b);
      EXPECT_NEAR(std::max({chips[0], chips[1], chips[2], chips[3]}), 1, 1e-3) << kind.strip.name;
      EXPECT_LE(std::max({chips[0], chips[1], chips[2], chips[3]}), 1.0001f);
      EXPECT_GE(luminance(bright), luminance(plain) * 0.998) << kind.strip.name;
      const float ratio = static_cast<float>(luminance(bright) / luminance(plain));
      EXPECT_NEAR(bright.r, plain.r * ratio, 0.01 * ratio) << kind.strip.name;
      EXPECT_NEAR(bright.g, plain.g * ratio, 0.01 * ratio);
      EXPECT_NEAR(bright.b, plain.b * ratio, 0.01 * ratio);
      // With a white chip the same light may be shared out otherwise.
      if (strip.order.size() == 4) continue;
      const auto own = strip.mix().light(wanted.r, wanted.g, wanted.b);
      for (std::size_t c = 0; c < 4; ++c) EXPECT_NEAR(own[c], chips[c] * top, 2e-3) << c;
    }
  }
}

/// White of a temperature is made by palettes; here the strip's own white chip does most of it.
TEST(ChipMap, WhitesOfManyTemperaturesArrive) {
  for (const StripKind& kind : stripKinds()) {
    if (kind.strip.order == "W") continue;
    for (const double kelvin : {2'700.0, 3'000.0, 4'000.0, 5'000.0, 6'500.0}) {
      Rgb wanted = whiteOfTemperature(kelvin);
      for (float* one : {&wanted.r, &wanted.g, &wanted.b}) *one *= 0.5f;
      EXPECT_LE(deltaE2000(toCieLab(wanted), toCieLab(leaving(kind.strip, wanted))), 3.0)
          << kind.strip.name << " " << kelvin;
    }
  }
}

TEST(ChipMap, TheWhiteChipTakesAllItCan) {
  for (const StripKind& kind : stripKinds()) {
    if (kind.strip.order.size() != 4) continue;
    const auto chips = kind.strip.mix().light(0.5f, 0.5f, 0.5f);
    EXPECT_GT(chips[3], 0.1f) << kind.strip.name;
    EXPECT_NEAR(std::min({chips[0], chips[1], chips[2]}), 0, 1e-5) << "one of the colours is left dark";
  }
}

TEST(ChipMap, ManyAtOnceAreThoseOfEachByItself) {
  const auto map = chipMapOf(*stripKinds().front().strip.chips);
  std::vector<float> r, g, b;
  std::mt19937 random(7);
  std::uniform_real_distribution<float> part(0, 1);
  for (int i = 0; i < 999; ++i) {
    r.push_back(part(random));
    g.push_back(i % 5 == 0 ? 0 : part(random));
    b.push_back(i % 7 == 0 ? 0 : part(random));
  }
  auto r2 = r, g2 = g, b2 = b;
  map->apply(r.size(), r2.data(), g2.data(), b2.data());
  for (std::size_t i = 0; i < r.size(); ++i)
    ASSERT_EQ((Rgb{r2[i], g2[i], b2[i]}), map->chipsOf({r[i], g[i], b[i]}));
  EXPECT_EQ(map, chipMapOf(*stripKinds().front().strip.chips)) << "it is made once";
}

TEST(ChipMap, ChipsWithoutWhiteBetweenThemAreRefused) {
  EXPECT_FALSE(spanWhite({{0.69, 0.31}, {0.68, 0.32}, {0.67, 0.33}}));
  EXPECT_FALSE(spanWhite({{0.69, 0.31}, {0.6, 0.4}, {0.5, 0.45}}));
  EXPECT_TRUE(spanWhite({}));
}

TEST(StripKinds, AreManyAndEachSaysWhereItsValuesComeFrom) {
  EXPECT_GE(stripKinds().size(), 12u);
  for (const StripKind& kind : stripKinds()) {
    EXPECT_FALSE(kind.source.empty()) << kind.strip.name;
    EXPECT_TRUE(kind.strip.chips) << kind.strip.name;
    EXPECT_TRUE(isChannelOrder(kind.strip.order));
    EXPECT_EQ(std::max({kind.strip.white.r, kind.strip.white.g, kind.strip.white.b}), 1.f);
  }
  EXPECT_FALSE(readStripKinds("{\"kinds\": [{\"strip\": {}}]}"));
  EXPECT_FALSE(readStripKinds("{"));
}

}  // namespace
}  // namespace chispa
