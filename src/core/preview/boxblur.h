// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <vector>

#include "core/preview/light4.h"

namespace chispa {

/// Room that boxBlur() works in, kept from one to the next.
struct BlurScratch {
  std::vector<Light4> plane;
  std::vector<Light4> sums;
};

/// Each dot of `plane` (width × height, row by row) becomes the mean of those up to `radius` around it;
/// beyond its edges it is dark. Several in a row come close to a bell.
void boxBlur(std::vector<Light4>& plane, int width, int height, int radius, BlurScratch& scratch);

}  // namespace chispa
