// SPDX-License-Identifier: GPL-3.0-or-later
// Strips with more chips than three, or with fewer.
#include <gtest/gtest.h>

#include "core/colour/difference.h"
#include "core/edit/planedits.h"
#include "core/edit/wireedits.h"
#include "core/files/showfile.h"
#include "core/render/compiled.h"
#include "core/show/stripwhite.h"
#include "core/wire/valuelight.h"

namespace chispa {
namespace {

StripType stripOf(const std::string& order) {
  StripType strip;
  strip.order = order;
  strip.response = {1};
  strip.chips = usualChips();
  strip.white = daylightShares(*strip.chips);
  return strip;
}

/// Warm and cold white beside the three.
StripType twoWhites(const std::string& order) {
  StripType strip = stripOf(order);
  strip.chips->white = chromaticityOfTemperature(2'700);
  strip.chips->amber = chromaticityOfTemperature(6'500);
  strip.chips->whiteLight = 1.2;
  strip.chips->amberLight = 1.5;
  return strip;
}

std::vector<Rgb> someColours() {
  std::vector<Rgb> all;
  for (const double kelvin : {2'700.0, 3'500.0, 5'000.0, 6'500.0}) {
    const Rgb white = srgbOfXyz(xyzOf(chromaticityOfTemperature(kelvin), 0.25));
    all.push_back(white);
  }
  for (const Srgb8 colour :
       {Srgb8{200, 140, 60}, Srgb8{90, 160, 140}, Srgb8{150, 120, 190}, Srgb8{220, 210, 180}})
    all.push_back({toLinear(colour).r * 0.4f, toLinear(colour).g * 0.4f, toLinear(colour).b * 0.4f});
  return all;
}

/// The further chips take what they can, and the colour stays what it is.
TEST(MoreChips, KeepTheColour) {
  StripType amber = stripOf("RGBA");
  for (const StripType& strip : {amber, stripOf("RGBW"), twoWhites("RGBWA")})
    for (const Rgb colour : someColours()) {
      const ChipMix mix = strip.mix();
      const ChipLight chips = mix.light(colour.r, colour.g, colour.b);
      for (const float chip : chips) EXPECT_TRUE(chip >= -1e-6f && chip <= 1) << strip.order << " " << chip;
      EXPECT_LT(deltaE2000(toCieLab(colour), toCieLab(mix.colourOf(chips))), 1) << strip.order;
    }
}

/// Of two whites both are used for a white between them, as much as there is room for: hardly any light is
/// left to the colours.
TEST(MoreChips, TwoWhitesMakeTheWhitesBetweenThem) {
  const ChipMix mix = twoWhites("RGBWA").mix();
  for (const double kelvin : {3'000.0, 4'000.0, 5'500.0}) {
    const Rgb white = srgbOfXyz(xyzOf(chromaticityOfTemperature(kelvin), 0.3));
    const ChipLight chips = mix.light(white.r, white.g, white.b);
    EXPECT_GT(chips[3], 0.01f) << kelvin;
    EXPECT_GT(chips[4], 0.01f) << kelvin;
    EXPECT_LT(chips[0] + chips[1] + chips[2], 0.25f * (chips[3] + chips[4])) << kelvin;
  }
}

/// A strip of warm and cold white has, of all mixtures that it can make, the one whose colour is nearest, and
/// is as bright as was wanted. Between its two ends it must lie a little beside the line of whites.
TEST(MoreChips, TunableWhiteIsTheNearestOfAllMixtures) {
  const StripType strip = twoWhites("WA");
  const ChipMix mix = strip.mix();
  const auto apart = [](Rgb one, Rgb other) {
    const CieLab a = toCieLab(one), b = toCieLab(other);
    return std::hypot(a.a - b.a, a.b - b.b);
  };
  for (const double kelvin : {2'700.0, 3'000.0, 4'000.0, 5'000.0, 6'500.0}) {
    const Rgb wanted = srgbOfXyz(xyzOf(chromaticityOfTemperature(kelvin), 0.6));
    const Rgb seen = mix.colourOf(mix.light(wanted.r, wanted.g, wanted.b));
    EXPECT_NEAR(toCieLab(seen).lightness, toCieLab(wanted).lightness, 0.5) << kelvin;
    double nearest = 1e9;
    for (int i = 0; i <= 200; ++i) {
      const float cold = static_cast<float>(i) / 200;
      Rgb other = mix.colourOf({0, 0, 0, 1 - cold, cold});
      const double share = xyzOfSrgb(wanted)[1] / xyzOfSrgb(other)[1];
      for (float* one : {&other.r, &other.g, &other.b}) *one *= static_cast<float>(share);
      nearest = std::min(nearest, apart(other, wanted));
    }
    EXPECT_LT(apart(seen, wanted), nearest + 1.5) << kelvin;
  }
  const ChipLight red = mix.light(0.5f, 0, 0);
  EXPECT_GT(red[3], red[4]) << "red is warm";
  EXPECT_NEAR(toCieLab(mix.colourOf(red)).lightness, toCieLab({0.5f, 0, 0}).lightness, 1)
      << "and as bright as it is";
}

/// A strip of one colour shows how bright a colour is.
TEST(MoreChips, OneChipShowsLuminance) {
  StripType strip;
  strip.order = "W";
  const ChipMix mix = strip.mix();
  EXPECT_NEAR(mix.light(1, 1, 1)[3], 1, 1e-5f);
  EXPECT_NEAR(mix.light(0, 1, 0)[3], 0.7152f, 1e-4f);
  EXPECT_NEAR(mix.light(0.2f, 0.2f, 0.2f)[3], 0.2f, 1e-5f);
}

/// Five channels leave in the strip's order, and are read back as the light that was meant.
TEST(MoreChips, FiveChannelsArePackedInTheirOrder) {
  Show show;
  StripType strip = twoWhites("GRBAW");
  strip.id = show.newId<StripTypeId>();
  put(show.stripTypes, strip);
  const FixtureId line = addFixture(show, LineShape{3, 0.1}, {});
  changeItem(show.fixtures, line, [&](Fixture& f) { f.stripType = strip.id; });
  hang(show, {line, 0, 3}, {addController(show, 1), 0, 0});
  const auto compiled = compile(show);
  PixelFrame frame;
  frame.resize(3);
  frame.r[1] = 0.5f;
  frame.g[1] = 0.4f;
  frame.b[1] = 0.2f;
  std::vector<std::uint8_t> values(compiled->packer->bufferSize());
  compiled->packer->pack(frame, DitherFrame{}, 1, values);
  const ChipLight chips = strip.mix().light(0.5f, 0.4f, 0.2f);
  const std::array<std::size_t, 5> order{1, 0, 2, 4, 3};
  for (std::size_t c = 0; c < 5; ++c) EXPECT_NEAR(values[5 + c], chips[order[c]] * 255, 0.51) << c;
  const Rgb back = ValueLight(show, compiled->patch, 0).lightOf(values, 1);
  EXPECT_NEAR(back.r, 0.5f, 0.01f);
  EXPECT_NEAR(back.g, 0.4f, 0.01f);
  EXPECT_NEAR(back.b, 0.2f, 0.01f);
}

}  // namespace
}  // namespace chispa
