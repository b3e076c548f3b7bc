// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <array>
#include <optional>
#include <string_view>

#include "core/colour/rgb.h"

namespace chispa {

/// A place in the CIE 1931 chromaticity diagram (CIE 15:2018, §7).
struct Chromaticity {
  double x = 0;
  double y = 0;

  bool operator==(const Chromaticity&) const = default;
};

/// White of sRGB, daylight of 6,504 K (IEC 61966-2-1).
inline constexpr Chromaticity kD65{0.3127, 0.3290};
inline constexpr std::array<Chromaticity, 3> kSrgbPrimaries{{{0.64, 0.33}, {0.30, 0.60}, {0.15, 0.06}}};

/// White of a colour temperature, 1,667–25,000 K: below 5,000 K on the Planckian locus (cubic fits of B. Kang
/// et al., J. Korean Phys. Soc. 41, 2002), above on the daylight locus (CIE 15:2018, 4.1.2, up to 7,000 K
/// exactly).
Chromaticity chromaticityOfTemperature(double kelvin);

/// The tristimulus values of light of luminance `y`, X, Y, Z.
std::array<double, 3> xyzOf(Chromaticity at, double luminance);
Chromaticity chromaticityOf(const std::array<double, 3>& xyz);
/// Linear sRGB of XYZ whose white has Y = 1, and back; outside of sRGB's gamut parts are below 0 (IEC
/// 61966-2-1).
Rgb srgbOfXyz(const std::array<double, 3>& xyz);
std::array<double, 3> xyzOfSrgb(Rgb colour);

/// Light of one wavelength, 380–780 nm: X, Y, Z of the 2° observer (multi-lobe fit of C. Wyman, P.-P. Sloan,
/// P. Shirley, J. Computer Graphics Techniques 2 (2), 2013).
std::array<double, 3> observer(double wavelength_nm);

/// The chromaticity of an LED with that dominant wavelength, 440–640 nm: a bell-shaped spectrum `width_nm`
/// wide at half of its peak, which is put where the dominant wavelength comes out as wanted.
Chromaticity chromaticityOfLed(double dominant_nm, double width_nm);

/// Where the line from D65 through the colour meets the light of one wavelength; nothing for purples and what
/// is as good as white.
std::optional<double> dominantWavelength(Chromaticity at);

/// A chromaticity as makers write it: "622 nm" for an LED of that dominant wavelength (as wide as those of
/// its colour usually are), "3000 K" for a white, or x and y: "0.690 0.310".
std::optional<Chromaticity> readChromaticity(std::string_view words);

}  // namespace chispa
