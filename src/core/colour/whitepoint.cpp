// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/colour/whitepoint.h"

#include <algorithm>
#include <cmath>

#include "core/colour/chromaticity.h"

namespace chispa {

Rgb whiteOfTemperature(double kelvin) {
  const Rgb white = srgbOfXyz(xyzOf(chromaticityOfTemperature(kelvin), 1));
  const float most = std::max({white.r, white.g, white.b});
  const auto share = [most](float part) { return std::max(0.02f, part / most); };
  return {share(white.r), share(white.g), share(white.b)};
}

std::optional<double> temperatureOfWhite(Rgb white) {
  return temperatureOfWhite(white, whiteOfTemperature);
}

std::optional<double> temperatureOfWhite(Rgb white, const std::function<Rgb(double kelvin)>& whiteOf) {
  // Green and blue grow, and then red falls, with the temperature: it is searched by halves.
  const auto coldness = [](Rgb colour) { return colour.g + colour.b - colour.r; };
  double low = 1'667, high = 25'000;
  for (int i = 0; i < 60; ++i) {
    const double middle = (low + high) / 2;
    (coldness(whiteOf(middle)) < coldness(white) ? low : high) = middle;
  }
  const Rgb made = whiteOf(low);
  constexpr float kNear = 0.02f;
  const bool isNear = std::abs(made.r - white.r) <= kNear && std::abs(made.g - white.g) <= kNear &&
                      std::abs(made.b - white.b) <= kNear;
  return isNear ? std::optional(low) : std::nullopt;
}

}  // namespace chispa
