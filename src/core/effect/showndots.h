// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/effect/curves.h"
#include "core/effect/sampling.h"

namespace chispa {

/// Bytes of sRGB in linear light.
inline const std::array<float, 256>& linearTable() {
  static const auto table = [] {
    std::array<float, 256> t{};
    for (std::size_t i = 0; i < t.size(); ++i) t[i] = linearFromSrgb(static_cast<float>(i) / 255);
    return t;
  }();
  return table;
}

/// Fills all cells with the dots that lie on them: `dotAt(column, row)` gives four bytes, R, G, B in sRGB and
/// how much it covers. What is darker than `clear` lets the layer below through; `tint` 0–1 gives them the
/// palette's colours by how bright they are.
template <class DotAt>
void showDots(const EffectInput& in, LightBuffer& out, const PictureOnFace& face, DotAt dotAt, float clear,
              float tint) noexcept {
  const auto& linear = linearTable();
  int column = 0, row = 0;
  for (std::size_t i = 0; i < static_cast<std::size_t>(in.cells.count()); ++i) {
    if (!face.find(in.cells.x[i], in.cells.y[i], column, row)) {
      out.set(i, {}, 0);
      continue;
    }
    const auto dot = dotAt(column, row);
    const Rgb own{linear[dot[0]], linear[dot[1]], linear[dot[2]]};
    const float bright = higher(own.r, higher(own.g, own.b));
    const Rgb toned = in.palette.clamped(bright);
    const float coverage =
        static_cast<float>(dot[3]) / 255 * (clear > 0 ? easeBetween(clear * 0.5f, clear, bright) : 1);
    out.set(i,
            {own.r + (toned.r - own.r) * tint, own.g + (toned.g - own.g) * tint,
             own.b + (toned.b - own.b) * tint},
            coverage);
  }
}

}  // namespace chispa
