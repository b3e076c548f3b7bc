// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <functional>
#include <optional>

#include "core/colour/rgb.h"

namespace chispa {

/// The shares of red, green and blue that make white of a colour temperature, 1,667–25,000 K, on LEDs whose
/// full white is daylight of 6,504 K (D65): the largest is 1, none is below 0.02. Below 5,000 K on the
/// Planckian locus (cubic fits of B. Kang et al., J. Korean Phys. Soc. 41, 2002), above on the daylight locus
/// (CIE 15:2018, 4.1.2, up to 7,000 K exactly).
Rgb whiteOfTemperature(double kelvin);

/// The colour temperature, 1,667–25,000 K, whose white that is; nothing if it is none of them by more than
/// 0.02 a channel.
std::optional<double> temperatureOfWhite(Rgb white);
/// The same where `whiteOf` makes the white of a temperature.
std::optional<double> temperatureOfWhite(Rgb white, const std::function<Rgb(double kelvin)>& whiteOf);

}  // namespace chispa
