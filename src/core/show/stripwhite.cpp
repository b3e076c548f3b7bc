// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/show/stripwhite.h"

#include <algorithm>
#include <cmath>

#include "core/colour/chipbalance.h"
#include "core/colour/whitepoint.h"

namespace chispa {
namespace {

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

/// The share of each chip's `full` light that is `wanted`; the largest is 1, none is below 0.02.
Rgb sharesOf(const std::array<double, 3>& wanted, const std::array<double, 3>& full) {
  const std::array<double, 3> parts{wanted[0] / full[0], wanted[1] / full[1], wanted[2] / full[2]};
  const double most = *std::max_element(parts.begin(), parts.end());
  const auto share = [most](double part) { return std::max(0.02f, static_cast<float>(part / most)); };
  return {share(parts[0]), share(parts[1]), share(parts[2])};
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
  return sharesOf(luminancesOf(strip, chromaticityOfTemperature(kelvin)), chipLuminances(strip));
}

Rgb daylightShares(const ChipColours& chips) {
  return sharesOf(*whiteLuminances({chips.red, chips.green, chips.blue}), chips.light);
}

std::optional<double> whiteTemperature(const StripType& strip) {
  return temperatureOfWhite(strip.white, [&strip](double kelvin) { return whiteShares(strip, kelvin); });
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
