// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <array>

#include "core/base/multiversion.h"
#include "core/effect/effect.h"

namespace chispa {

/// What one cell shows: a place on the palette, 0–1, and how much it covers, 0–1.
struct Shade {
  float place = 0;
  float light = 0;
};

namespace detail {

/// Cells worked out at a time: their shades stay in the nearest cache until they are looked up.
inline constexpr std::size_t kShadeBlock = 128;

template <class LookUp, class ShadeOf>
CHISPA_INLINED inline void shadeBlocks(const CellRange& range, LightBuffer& out, LookUp lookUp,
                                       ShadeOf shadeOf) noexcept {
  std::array<float, kShadeBlock> places;
  for (std::size_t done = 0; done < range.count; done += kShadeBlock) {
    const std::size_t size = std::min(kShadeBlock, range.count - done);
    // How much a cell covers is told by its light alone: it is worked out where it stays.
    float* __restrict lights = out.a.data() + done;
    for (std::size_t k = 0; k < size; ++k) {
      const Shade shade = shadeOf(range.first + done + k);
      places[k] = shade.place;
      lights[k] = shade.light;
    }
    lookUp(places.data(), lights, size, out.r.data() + done, out.g.data() + done, out.b.data() + done);
  }
}

}  // namespace detail

/// A Shade of which `white` 0–1 is white instead of the palette's colour: what glows with heat.
struct HotShade {
  float place = 0;
  float light = 0;
  float white = 0;
};

/// Fills the range that is asked for with `shadeOf(i)`, the Shade of the zone's cell i, in the palette's
/// colours. Called from a function marked CHISPA_MULTIVERSION, with a shadeOf without branches, it works on
/// eight cells at once.
template <class ShadeOf>
CHISPA_INLINED inline void shadeCells(const EffectInput& in, LightBuffer& out, ShadeOf shadeOf) noexcept {
  const auto lookUp = [&in](const float* places, const float* lights, std::size_t size, float* r, float* g,
                            float* b) { in.palette.clamped(places, lights, size, r, g, b); };
  detail::shadeBlocks(in.range, out, lookUp, shadeOf);
}

/// The same with the palette as a loop without a seam.
template <class ShadeOf>
CHISPA_INLINED inline void shadeCellsAround(const EffectInput& in, LightBuffer& out,
                                            ShadeOf shadeOf) noexcept {
  const auto lookUp = [&in](const float* places, const float* lights, std::size_t size, float* r, float* g,
                            float* b) { in.palette.wrapped(places, lights, size, r, g, b); };
  detail::shadeBlocks(in.range, out, lookUp, shadeOf);
}

/// As shadeCells(), with `shadeOf(i)` a HotShade.
template <class ShadeOf>
CHISPA_INLINED inline void shadeHotCells(const EffectInput& in, LightBuffer& out, ShadeOf shadeOf) noexcept {
  std::array<float, detail::kShadeBlock> places, whites;
  for (std::size_t done = 0; done < in.range.count; done += detail::kShadeBlock) {
    const std::size_t size = std::min(detail::kShadeBlock, in.range.count - done);
    float* __restrict lights = out.a.data() + done;
    for (std::size_t k = 0; k < size; ++k) {
      const HotShade shade = shadeOf(in.range.first + done + k);
      places[k] = shade.place;
      lights[k] = shade.light;
      whites[k] = shade.white;
    }
    in.palette.clamped(places.data(), lights, size, out.r.data() + done, out.g.data() + done,
                       out.b.data() + done);
    for (auto* channel : {&out.r, &out.g, &out.b}) {
      float* __restrict own = channel->data() + done;
      for (std::size_t k = 0; k < size; ++k) own[k] += (lights[k] - own[k]) * whites[k];
    }
  }
}

}  // namespace chispa
