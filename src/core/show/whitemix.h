// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <array>

#include "core/colour/chipcolours.h"
#include "core/colour/rgb.h"

namespace chispa {

/// A strip of one white, or of two that make every white between them: what the strip shows of a colour is
/// how bright it is, and how warm.
class WhiteMix {
 public:
  /// Two whites of `chips`, its white and its amber one; or only one of them.
  WhiteMix(const ChipColours& chips, bool hasWhite, bool hasAmber) noexcept;
  /// Where no more is known: a warm and a cold white, or one that is daylight.
  static WhiteMix plain(bool hasWhite, bool hasAmber) noexcept;

  bool operator==(const WhiteMix&) const = default;

  /// Light 0–1 of the white and the fifth chip for a colour in linear sRGB: its luminance, and of all
  /// mixtures the one on whose line of equal steps (CIE 1976 u′v′) it lies nearest. Full white of any warmth
  /// is as bright as the dimmer chip at full; if `isBrightest`, as bright as the two can make it.
  std::array<float, 2> light(Rgb colour, bool isBrightest) const noexcept;
  /// The colour of that light, in linear sRGB.
  Rgb colourOf(float white, float amber) const noexcept;

 private:
  struct Chip {
    /// CIE 1976 u′ and v′.
    float u = 0;
    float v = 0;
    /// Luminance at full; 0 for one that is not there.
    float light = 0;
    Rgb colour{};

    bool operator==(const Chip&) const = default;
  };

  Chip white_;
  Chip amber_;
  float reference_ = 1;
};

}  // namespace chispa
