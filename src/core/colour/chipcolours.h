// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <array>
#include <memory>
#include <optional>
#include <vector>

#include "core/colour/chromaticity.h"

namespace chispa {

/// The colours of a strip's own chips. How strong they are against each other its white point says.
struct ChipColours {
  Chromaticity red = kSrgbPrimaries[0];
  Chromaticity green = kSrgbPrimaries[1];
  Chromaticity blue = kSrgbPrimaries[2];
  /// Of the white chip, where there is one.
  Chromaticity white = kD65;
  /// Luminance of the white chip at full, of that of the other three together as white; 0.01–10.
  double whiteLight = 1;
  /// Of the fifth chip, where there is one: amber (590 nm), or another white; and its luminance, as of the
  /// white one.
  Chromaticity amber{0.5752, 0.4242};
  double amberLight = 1;
  /// Luminance of the red, green and blue chip at full against each other, as data sheets have it; all 0
  /// where it is not known: then full white is taken as daylight.
  std::array<double, 3> light{0, 0, 0};

  bool operator==(const ChipColours&) const = default;
};

/// True if the three span a triangle that has daylight in it: then every colour has its shares.
bool spanWhite(const ChipColours& chips);

/// The way from colours as they are meant, linear sRGB, to the light of a strip's chips, and back. The light
/// of a chip is counted so that 1, 1, 1 is daylight (D65) and as bright as sRGB's white. What no mixture of
/// the chips can show loses chroma, at its own hue and lightness in OKLab (B. Ottosson, 2020), until they
/// can.
class ChipMap {
 public:
  /// Of chips that spanWhite(); others are taken as sRGB's.
  explicit ChipMap(const ChipColours& chips);

  const ChipColours& chips() const { return chips_; }
  /// None below 0; a bright, saturated colour may need more than 1 of a chip. Real-time safe.
  Rgb chipsOf(Rgb colour) const noexcept;
  /// The same for `count` colours in place.
  void apply(std::size_t count, float* __restrict r, float* __restrict g, float* __restrict b) const noexcept;
  /// The colour of that light, in linear sRGB; a part below 0 lies outside of what a screen shows.
  Rgb colourOf(Rgb chips) const noexcept;
  /// The other three's light that the white chip at full stands for.
  Rgb whiteChip() const { return whiteChip_; }
  Rgb amberChip() const { return amberChip_; }

 private:
  using Matrix = std::array<float, 9>;
  Rgb mapped(Rgb colour) const;
  Rgb fromTable(Rgb colour) const noexcept;

  ChipColours chips_;
  Matrix toChips_{};
  Matrix toSrgb_{};
  Rgb whiteChip_{1, 1, 1};
  Rgb amberChip_{1, 1, 1};
  /// Light of the chips for colours whose parts make 1, by red and green.
  std::vector<Rgb> table_;
};

/// The map of those chips; made once for as long as anybody uses it. Any thread.
std::shared_ptr<const ChipMap> chipMapOf(const ChipColours& chips);

}  // namespace chispa
