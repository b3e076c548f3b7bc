// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

namespace chispa {

/// Bands of the spectrum that effects can follow, from low to high.
inline constexpr int kBands = 16;

}  // namespace chispa
