// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <vector>

#include "core/music/features.h"

namespace chispa {

/// Instants at which something new sounds: peaks of an onset curve of SpectralFrames that stand out from what
/// is around them.
std::vector<Micros> findOnsets(const std::vector<float>& curve);

}  // namespace chispa
