// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <array>
#include <optional>

#include "core/colour/chromaticity.h"

namespace chispa {

/// The luminance that each of three lights gives to `white`, daylight (D65) if nothing else is said, of
/// luminance 1; below 0 where it is not between them. Nothing if they lie in a line, or nearly.
std::optional<std::array<double, 3>> whiteLuminances(const std::array<Chromaticity, 3>& lights,
                                                     Chromaticity white = kD65);

}  // namespace chispa
