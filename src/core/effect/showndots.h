// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/base/curves.h"
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

/// Light of a picture at a cell, not multiplied by what it covers.
struct DotLight {
  Rgb light;
  float coverage = 0;
};

/// A dot's four bytes, R, G, B in sRGB and how much it covers, as light.
template <class Dot>
DotLight lightOfDot(const Dot& dot) noexcept {
  const auto& linear = linearTable();
  return {{linear[dot[0]], linear[dot[1]], linear[dot[2]]}, static_cast<float>(dot[3]) / 255};
}

/// Fills all cells with the light that lies on them: `lightAt(x, y)` is asked in dots from the left and from
/// the top. What is darker than `clear` lets the layer below through; `tint` 0–1 gives it the palette's
/// colours by how bright it is.
template <class LightAt>
void showLight(const EffectInput& in, LightBuffer& out, const PictureOnFace& face, LightAt lightAt,
               float clear, float tint) noexcept {
  float x = 0, y = 0;
  for (std::size_t i = 0; i < static_cast<std::size_t>(in.cells.count()); ++i) {
    if (!face.findPoint(i, x, y)) {
      out.set(i, {}, 0);
      continue;
    }
    const DotLight own = lightAt(x, y);
    const float bright = higher(own.light.r, higher(own.light.g, own.light.b));
    const Rgb toned = in.palette.clamped(bright);
    const float coverage = own.coverage * (clear > 0 ? easeBetween(clear * 0.5f, clear, bright) : 1);
    out.set(i,
            {own.light.r + (toned.r - own.light.r) * tint, own.light.g + (toned.g - own.light.g) * tint,
             own.light.b + (toned.b - own.light.b) * tint},
            coverage);
  }
}

/// The same with one dot a cell: `dotAt(column, row)` gives its four bytes.
template <class DotAt>
void showDots(const EffectInput& in, LightBuffer& out, const PictureOnFace& face, DotAt dotAt, float clear,
              float tint) noexcept {
  showLight(
      in, out, face,
      [&](float x, float y) { return lightOfDot(dotAt(static_cast<int>(x), static_cast<int>(y))); }, clear,
      tint);
}

}  // namespace chispa
