// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <algorithm>
#include <array>
#include <memory>
#include <optional>
#include <string_view>

#include "core/colour/chipcolours.h"
#include "core/colour/rgb.h"
#include "core/show/whitemix.h"

namespace chispa {

/// The letters of a pixel's chips: red, green, blue, a white one, and another, which is amber or a second
/// white.
inline constexpr std::string_view kChipLetters = "RGBWA";
inline constexpr std::size_t kChips = kChipLetters.size();
/// The light of a pixel's chips, 0–1, in the order of their letters.
using ChipLight = std::array<float, kChips>;

/// How a pixel's chips share its light: the share of each colour that makes the strip's white, which chips of
/// its own take what the three colours have in common, and what colours the chips have.
struct ChipMix {
  /// The strip's white point, 0–1 a channel.
  Rgb white{1, 1, 1};
  bool hasWhite = false;
  bool hasAmber = false;
  /// Of a strip without red, green and blue chips: it shows how bright a colour is, and with two whites how
  /// warm.
  std::optional<WhiteMix> whites = {};
  /// None: the chips are taken as sRGB's, and the white one as all three.
  std::shared_ptr<const ChipMap> colours = {};
  /// Each colour as bright as the chips can show it: its strongest chip is at full where the colour is.
  bool isBrightest = false;

  bool operator==(const ChipMix&) const = default;

  /// Light of the chips for a colour in linear sRGB.
  ChipLight light(float r, float g, float b) const {
    if (colours || isBrightest || hasAmber || whites) return lightOfColours(r, g, b);
    const float common = hasWhite ? std::min({r, g, b}) : 0.f;
    return {(r - common) * white.r, (g - common) * white.g, (b - common) * white.b, common, 0};
  }
  /// The same for `count` pixels at once: `r`, `g` and `b` become the light of those chips, `w` and `a` that
  /// of the white and the fifth one. Real-time safe.
  void share(std::size_t count, float* __restrict r, float* __restrict g, float* __restrict b,
             float* __restrict w, float* __restrict a) const noexcept;
  /// The colour, in linear sRGB, of that light of the chips.
  Rgb colourOf(const ChipLight& chips) const;
  /// Channels' worth of current of a pixel of that colour.
  double channelsLit(float r, float g, float b) const {
    double sum = 0;
    for (const float chip : light(r, g, b)) sum += static_cast<double>(chip);
    return sum;
  }
  /// How many of a ChipLight there are, counted to the last.
  std::size_t chipCount() const { return hasAmber ? 5 : hasWhite ? 4 : 3; }

 private:
  ChipLight lightOfColours(float r, float g, float b) const;
  void shareColours(std::size_t count, float* __restrict r, float* __restrict g, float* __restrict b,
                    float* __restrict w, float* __restrict a) const noexcept;
  Rgb likeOfWhite() const { return colours ? colours->whiteChip() : Rgb{1, 1, 1}; }
  Rgb likeOfAmber() const;
  bool isPlain() const {
    return !hasWhite && !hasAmber && !whites && !colours && !isBrightest && white == Rgb{1, 1, 1};
  }
};

}  // namespace chispa
