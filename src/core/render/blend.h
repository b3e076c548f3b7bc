// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/effect/light.h"
#include "core/show/score.h"

namespace chispa {

/// Lays the first `cells` of `top`, scaled by `strength` 0–1, on `base`. Both are premultiplied linear light.
/// Normal, add, screen and multiply follow the compositing formulas of W3C Compositing and Blending Level 1 §9–10,
/// lighten takes the brighter of each channel, mask keeps of `base` what `top` is bright at, and cut-out puts in its place of
/// `top` what `base` is bright at.
void blendOnto(LightBuffer& base, const LightBuffer& top, std::size_t cells, Blend blend, float strength) noexcept;

}  // namespace chispa
