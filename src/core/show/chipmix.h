// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <algorithm>
#include <array>

#include "core/colour/rgb.h"

namespace chispa {

/// How a pixel's chips share its light: the share of each colour that makes the strip's white, and whether a
/// chip of its own takes what the three colours have in common.
struct ChipMix {
  /// The strip's white point, 0–1 a channel.
  Rgb white{1, 1, 1};
  bool hasWhite = false;

  bool operator==(const ChipMix&) const = default;

  /// Light of the red, green, blue and white chip.
  std::array<float, 4> light(float r, float g, float b) const {
    const float common = hasWhite ? std::min({r, g, b}) : 0.f;
    return {(r - common) * white.r, (g - common) * white.g, (b - common) * white.b, common};
  }
  /// The same for `count` pixels at once: `r`, `g` and `b` become the light of those chips, `w` that of the
  /// white one.
  void share(std::size_t count, float* __restrict r, float* __restrict g, float* __restrict b,
             float* __restrict w) const noexcept {
    if (*this == ChipMix{}) return;
    const float taken = hasWhite ? 1.f : 0.f;
    for (std::size_t i = 0; i < count; ++i) {
      const float least = r[i] < g[i] ? r[i] : g[i];
      const float common = (least < b[i] ? least : b[i]) * taken;
      r[i] = (r[i] - common) * white.r;
      g[i] = (g[i] - common) * white.g;
      b[i] = (b[i] - common) * white.b;
      w[i] = common;
    }
  }
  /// Channels' worth of current of a pixel of that colour.
  double channelsLit(float r, float g, float b) const {
    const auto chips = light(r, g, b);
    return static_cast<double>(chips[0] + chips[1] + chips[2] + chips[3]);
  }
};

}  // namespace chispa
