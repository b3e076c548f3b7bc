// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <algorithm>
#include <cstddef>
#include <vector>

#include "core/colour/rgb.h"

namespace chispa {

/// Linear light of a zone's cells with coverage, as separate arrays; colours are premultiplied by coverage.
struct LightBuffer {
  std::vector<float> r, g, b, a;

  void resize(std::size_t cells) {
    for (auto* channel : {&r, &g, &b, &a}) channel->resize(cells);
  }
  /// All dark and clear for the first `cells`, which must not exceed the size.
  void clear(std::size_t cells) {
    for (auto* channel : {&r, &g, &b, &a}) std::fill_n(channel->begin(), cells, 0.f);
  }
  std::size_t size() const { return r.size(); }
  /// Cell `i` shows `colour` at `coverage` 0–1: 0 lets the layer below through, 1 hides it.
  void set(std::size_t i, Rgb colour, float coverage) {
    r[i] = colour.r * coverage;
    g[i] = colour.g * coverage;
    b[i] = colour.b * coverage;
    a[i] = coverage;
  }
};

}  // namespace chispa
