// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <algorithm>
#include <array>
#include <memory>

#include "core/colour/chipcolours.h"
#include "core/colour/rgb.h"

namespace chispa {

/// How a pixel's chips share its light: the share of each colour that makes the strip's white, whether a chip
/// of its own takes what the three colours have in common, and what colours the chips have.
struct ChipMix {
  /// The strip's white point, 0–1 a channel.
  Rgb white{1, 1, 1};
  bool hasWhite = false;
  /// None: the chips are taken as sRGB's, and the white one as all three.
  std::shared_ptr<const ChipMap> colours = {};
  /// Each colour as bright as the chips can show it: its strongest chip is at full where the colour is.
  bool isBrightest = false;

  bool operator==(const ChipMix&) const = default;

  /// Light of the red, green, blue and white chip for a colour in linear sRGB.
  std::array<float, 4> light(float r, float g, float b) const {
    if (colours || isBrightest) return lightOfColours(r, g, b);
    const float common = hasWhite ? std::min({r, g, b}) : 0.f;
    return {(r - common) * white.r, (g - common) * white.g, (b - common) * white.b, common};
  }
  /// The same for `count` pixels at once: `r`, `g` and `b` become the light of those chips, `w` that of the
  /// white one. Real-time safe.
  void share(std::size_t count, float* __restrict r, float* __restrict g, float* __restrict b,
             float* __restrict w) const noexcept;
  /// The colour, in linear sRGB, of that light of red, green, blue and white chip.
  Rgb colourOf(const std::array<float, 4>& chips) const;
  /// Channels' worth of current of a pixel of that colour.
  double channelsLit(float r, float g, float b) const {
    const auto chips = light(r, g, b);
    return static_cast<double>(chips[0] + chips[1] + chips[2] + chips[3]);
  }

 private:
  std::array<float, 4> lightOfColours(float r, float g, float b) const;
  bool isPlain() const { return !hasWhite && !colours && !isBrightest && white == Rgb{1, 1, 1}; }
};

}  // namespace chispa
