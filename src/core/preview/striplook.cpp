// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/preview/striplook.h"

#include <algorithm>
#include <cmath>
#include <string_view>

#include "core/show/stripwhite.h"

namespace chispa {
namespace {

/// The light of the step nearest to `light` that the strip's values can say.
float stepped(const StripType& strip, float light) {
  const double steps = strip.channelBits > 8 ? 65'535 : 255;
  const double value = std::round(strip.response.valueOf(static_cast<double>(light)) * steps);
  return static_cast<float>(strip.response.lightOf(value / steps));
}

}  // namespace

Rgb shownBy(const StripType& strip, Rgb wanted) {
  return shownBy(strip, strip.mix(), wanted);
}

Rgb shownBy(const StripType& strip, const ChipMix& mix, Rgb wanted) {
  auto chips = mix.light(wanted.r, wanted.g, wanted.b);
  for (std::size_t i = 0; i < chips.size(); ++i)
    chips[i] = strip.order.find(kChipLetters[i]) == std::string::npos ? 0.f : stepped(strip, chips[i]);
  // What the white point takes from the three chips makes their white white, and dimmer; the white chip is as
  // bright as ever.
  const auto left = static_cast<float>(lightLeft(strip));
  for (std::size_t i = 0; i < 3; ++i) chips[i] *= left;
  const Rgb seen = mix.colourOf(chips);
  const auto held = [](float light) { return std::clamp(light, 0.f, 1.f); };
  return {held(seen.r), held(seen.g), held(seen.b)};
}

}  // namespace chispa
