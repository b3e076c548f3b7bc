// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/preview/boxblur.h"

#include <algorithm>

namespace chispa {

// By running sums, once along rows and once along columns, where all columns' sums run at once.
void boxBlur(std::vector<Light4>& plane, int width, int height, int radius, BlurScratch& scratch) {
  scratch.plane.resize(plane.size());
  const float share = 1.f / static_cast<float>(2 * radius + 1);
  const auto rowOf = [width](std::vector<Light4>& all, int y) {
    return &all[static_cast<std::size_t>(y) * static_cast<std::size_t>(width)];
  };
  for (int y = 0; y < height; ++y) {
    const Light4* in = rowOf(plane, y);
    Light4* out = rowOf(scratch.plane, y);
    Light4 sum{};
    for (int x = 0; x < std::min(radius, width); ++x) sum += in[x];
    for (int x = 0; x < width; ++x) {
      if (x + radius < width) sum += in[x + radius];
      if (x - radius - 1 >= 0) sum -= in[x - radius - 1];
      out[x] = sum * share;
    }
  }
  scratch.sums.assign(static_cast<std::size_t>(width), Light4{});
  const auto run = [&](const Light4* in, float sign) {
    for (int x = 0; x < width; ++x) scratch.sums[static_cast<std::size_t>(x)] += in[x] * sign;
  };
  for (int y = 0; y < std::min(radius, height); ++y) run(rowOf(scratch.plane, y), 1);
  for (int y = 0; y < height; ++y) {
    if (y + radius < height) run(rowOf(scratch.plane, y + radius), 1);
    if (y - radius - 1 >= 0) run(rowOf(scratch.plane, y - radius - 1), -1);
    Light4* out = rowOf(plane, y);
    for (int x = 0; x < width; ++x) {
      const Light4 mean = scratch.sums[static_cast<std::size_t>(x)] * share;
      // Rounding must not leave light below zero.
      out[x] = mean > 0 ? mean : Light4{};
    }
  }
}

}  // namespace chispa
