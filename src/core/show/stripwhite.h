// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <array>
#include <optional>

#include "core/show/striptype.h"

namespace chispa {

// The white of a strip by its own chips: by their colours and their light, where its type knows them.

/// The luminance of the red, green and blue chip at full, as parts of 1.
std::array<double, 3> chipLuminances(const StripType& strip);

/// The shares of red, green and blue that make white of a colour temperature, 1,667–25,000 K: the largest is
/// 1, none is below 0.02.
Rgb whiteShares(const StripType& strip, double kelvin);

/// The shares of chips that spanWhite(), and whose light is known, that make daylight; the largest is 1.
Rgb daylightShares(const ChipColours& chips);

/// The colour temperature of the strip's white; nothing if it is that of none by more than 0.02 a channel.
std::optional<double> whiteTemperature(const StripType& strip);

/// The luminance that the strip's white leaves of that of all three chips at full, 0–1.
double lightLeft(const StripType& strip);

/// The colours and light of the chips that most strip of 5 V and 12 V has, for a type of which no more is
/// known.
const ChipColours& usualChips();

}  // namespace chispa
