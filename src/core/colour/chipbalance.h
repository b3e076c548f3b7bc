// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <array>
#include <optional>

#include "core/colour/chromaticity.h"

namespace chispa {

/// The luminance that each of three lights gives to daylight (D65) of luminance 1, below 0 where daylight is
/// not between them; nothing if they lie in a line, or nearly.
std::optional<std::array<double, 3>> daylightLuminances(const std::array<Chromaticity, 3>& lights);

}  // namespace chispa
