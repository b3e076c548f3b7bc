// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/show/stripwhite.h"

#include <algorithm>
#include <cmath>

#include "core/colour/chipbalance.h"
#include "core/colour/whitepoint.h"

namespace chispa {
namespace {

constexpr float kLeastShare = 0.02f;

std::array<Chromaticity, 3> chipsOf(const StripType& strip) {
  return strip.chips ? std::array{strip.chips->red, strip.chips->green, strip.chips->blue} : kSrgbPrimaries;
}

/// The luminances of `strip`'s chips that make `white`, as parts of 1.
std::array<double, 3> luminancesOf(const StripType& strip, Chromaticity white) {
  auto parts = whiteLuminances(chipsOf(strip), white).value_or(std::array{0.2126, 0.7152, 0.0722});
  // A white that the chips do not reach has as little of one as can be.
  for (double& part : parts) part = std::max(part, 1e-4);
  return parts;
}

}  // namespace

std::array<double, 3> chipLuminances(const StripType& strip) {
  std::array<double, 3> light = strip.chips ? strip.chips->light : std::array<double, 3>{};
  if (*std::min_element(light.begin(), light.end()) <= 0) light = luminancesOf(strip, kD65);
  const double sum = light[0] + light[1] + light[2];
  for (double& one : light) one /= sum;
  return light;
}

Rgb whiteShares(const StripType& strip, double kelvin) {
  if (!strip.chips) return whiteOfTemperature(kelvin);
  const auto wanted = luminancesOf(strip, chromaticityOfTemperature(kelvin));
  const auto full = chipLuminances(strip);
  std::array<double, 3> shares;
  for (std::size_t i = 0; i < shares.size(); ++i) shares[i] = wanted[i] / full[i];
  const double most = *std::max_element(shares.begin(), shares.end());
  const auto share = [most](double one) { return std::max(kLeastShare, static_cast<float>(one / most)); };
  return {share(shares[0]), share(shares[1]), share(shares[2])};
}

Rgb daylightShares(const ChipColours& chips) {
  const auto [red, green, blue] = *whiteLuminances({chips.red, chips.green, chips.blue});
  const Rgb shares{static_cast<float>(red / chips.light[0]), static_cast<float>(green / chips.light[1]),
                   static_cast<float>(blue / chips.light[2])};
  const float most = std::max({shares.r, shares.g, shares.b});
  const auto share = [most](float one) { return std::clamp(one / most, 0.02f, 1.f); };
  return {share(shares.r), share(shares.g), share(shares.b)};
}

std::optional<double> whiteTemperature(const StripType& strip) {
  // Blue grows against red with the temperature: it is searched by halves.
  const auto coldness = [](Rgb colour) { return colour.b / colour.r; };
  double low = 1'667, high = 25'000;
  for (int i = 0; i < 60; ++i) {
    const double middle = (low + high) / 2;
    (coldness(whiteShares(strip, middle)) < coldness(strip.white) ? low : high) = middle;
  }
  const Rgb made = whiteShares(strip, low);
  constexpr float kNear = 0.02f;
  const bool isNear = std::abs(made.r - strip.white.r) <= kNear &&
                      std::abs(made.g - strip.white.g) <= kNear && std::abs(made.b - strip.white.b) <= kNear;
  return isNear ? std::optional(low) : std::nullopt;
}

double lightLeft(const StripType& strip) {
  const auto full = chipLuminances(strip);
  return full[0] * static_cast<double>(strip.white.r) + full[1] * static_cast<double>(strip.white.g) +
         full[2] * static_cast<double>(strip.white.b);
}

const ChipColours& usualChips() {
  static const ChipColours usual = [] {
    ChipColours chips{*readChromaticity("622 nm"), *readChromaticity("524 nm"), *readChromaticity("467 nm"),
                      *readChromaticity("4000 K")};
    // Millicandelas, as in the library (stripkinds.json).
    chips.light = {405, 690, 190};
    return chips;
  }();
  return usual;
}

}  // namespace chispa
