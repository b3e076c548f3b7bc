// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/show/stripwhite.h"

#include <gtest/gtest.h>

#include "core/colour/chipbalance.h"
#include "core/colour/difference.h"
#include "core/edit/planedits.h"
#include "core/files/stripkinds.h"

namespace chispa {
namespace {

/// A strip as a photometer would see it: the tristimulus values of its three chips at these shares of full,
/// by the chips' own xy and light.
std::array<double, 3> measured(const ChipColours& chips, Rgb shares) {
  std::array<double, 3> sum{};
  const std::array<Chromaticity, 3> at{chips.red, chips.green, chips.blue};
  const std::array<float, 3> share{shares.r, shares.g, shares.b};
  for (std::size_t i = 0; i < 3; ++i) {
    const auto xyz = xyzOf(at[i], chips.light[i] * static_cast<double>(share[i]));
    for (std::size_t k = 0; k < 3; ++k) sum[k] += xyz[k];
  }
  return sum;
}

std::vector<StripType> colourStrips() {
  std::vector<StripType> strips;
  for (const StripKind& kind : stripKinds())
    if (kind.strip.order.size() >= 3) strips.push_back(kind.strip);
  return strips;
}

/// What is told to be left of full light is what a photometer finds, within 2 %, on every kind of strip and
/// white.
TEST(StripWhite, LightLeftIsWhatIsMeasured) {
  ASSERT_GE(colourStrips().size(), 6u);
  for (StripType strip : colourStrips())
    for (const double kelvin : {2'700.0, 4'000.0, 6'500.0}) {
      strip.white = whiteShares(strip, kelvin);
      const double left = measured(*strip.chips, strip.white)[1] / measured(*strip.chips, {1, 1, 1})[1];
      EXPECT_NEAR(lightLeft(strip), left, 0.02 * left) << strip.name << " at " << kelvin;
    }
}

/// The white of a colour temperature has its colour on the strip's own chips.
TEST(StripWhite, HasTheColourOfItsTemperature) {
  for (StripType strip : colourStrips())
    for (const double kelvin : {2'700.0, 3'000.0, 4'000.0, 6'500.0}) {
      strip.white = whiteShares(strip, kelvin);
      auto seen = measured(*strip.chips, strip.white);
      const double scale = 0.5 / seen[1];
      for (double& one : seen) one *= scale;
      const Rgb meant = srgbOfXyz(xyzOf(chromaticityOfTemperature(kelvin), 0.5));
      EXPECT_LT(deltaE2000(toCieLab(srgbOfXyz(seen)), toCieLab(meant)), 1) << strip.name << " at " << kelvin;
      const auto found = whiteTemperature(strip);
      ASSERT_TRUE(found) << strip.name;
      EXPECT_NEAR(*found, kelvin, 0.02 * kelvin) << strip.name;
    }
}

/// Without chips that are known full white is daylight.
TEST(StripWhite, OfUnknownChipsIsThatOfAScreen) {
  StripType strip;
  EXPECT_NEAR(lightLeft(strip), 1, 1e-6);
  strip.white = {1, 0, 0};
  EXPECT_NEAR(lightLeft(strip), 0.2126, 1e-3);
}

/// A type that is made from nothing has the chips that most strips have, balanced to daylight.
TEST(StripWhite, ANewTypeHasUsualChips) {
  Show show;
  const StripTypeId id = addStripType(show, {});
  const StripType& made = *find(show.stripTypes, id);
  ASSERT_TRUE(made.chips);
  auto seen = measured(*made.chips, made.white);
  const double scale = 0.5 / seen[1];
  for (double& one : seen) one *= scale;
  EXPECT_LT(deltaE2000(toCieLab(srgbOfXyz(seen)), toCieLab({0.5f, 0.5f, 0.5f})), 1);
}

}  // namespace
}  // namespace chispa
