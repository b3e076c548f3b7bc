// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <cstdint>
#include <vector>

namespace chispa {

/// Thresholds 0–255 for a tile of `columns` × `rows` places, row by row, so spread that those below any
/// threshold lie as evenly apart as can be: blue noise, by void and cluster (R. Ulichney, "The
/// void-and-cluster method for dither array generation", SPIE 1913, 1993). The tile fits to itself on all
/// sides. `seed` chooses among many tiles. The time grows with the square of the places.
std::vector<std::uint8_t> blueNoise(int columns, int rows, std::uint32_t seed);

}  // namespace chispa
