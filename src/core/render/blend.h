// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/effect/light.h"
#include "core/show/score.h"

namespace chispa {

/// Lays the first `cells` of `top`, scaled by `strength` 0–1, on `base`. Both are premultiplied linear light.
/// Normal, add, screen and multiply follow the compositing formulas of W3C Compositing and Blending Level 1
/// §9–10, lighten takes the brighter of each channel, mask keeps of `base` what `top` is bright at, and
/// cut-out puts in its place of `top` what `base` is bright at.
void blendOnto(LightBuffer& base, const LightBuffer& top, std::size_t cells, Blend blend,
               float strength) noexcept;

/// Channels of a frame from some pixel on. What is there covers all below it.
struct FramePart {
  float* r;
  float* g;
  float* b;
};

/// The same with pixels of a frame as `base`, and `top` from its cell `first` on, one to a pixel.
void blendOntoFrame(FramePart base, const LightBuffer& top, std::size_t first, std::size_t count, Blend blend,
                    float strength) noexcept;

}  // namespace chispa
