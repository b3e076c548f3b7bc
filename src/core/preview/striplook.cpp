// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/preview/striplook.h"

#include <cmath>

#include "core/colour/whitepoint.h"

namespace chispa {
namespace {

/// The light of the step nearest to `light` that the strip's values can say.
float stepped(const StripType& strip, float light) {
  const double steps = strip.channelBits > 8 ? 65'535 : 255;
  const double response = strip.response > 0 ? strip.response : 1;
  const double value =
      std::round(std::pow(static_cast<double>(std::clamp(light, 0.f, 1.f)), 1 / response) * steps);
  return static_cast<float>(std::pow(value / steps, response));
}

}  // namespace

Rgb shownBy(const StripType& strip, Rgb wanted) {
  const auto chips = strip.mix().light(wanted.r, wanted.g, wanted.b);
  const auto seen = [&](char letter, std::size_t i) {
    return strip.order.find(letter) == std::string::npos ? 0.f : stepped(strip, chips[i]);
  };
  const float white = seen('W', 3);
  // What the white point takes from a chip makes its white white, and dimmer.
  const auto left = static_cast<float>(lightLeft(strip.white));
  const auto colour = [&](float light, float share) { return std::min(1.f, light / share * left + white); };
  return {colour(seen('R', 0), strip.white.r), colour(seen('G', 1), strip.white.g),
          colour(seen('B', 2), strip.white.b)};
}

}  // namespace chispa
