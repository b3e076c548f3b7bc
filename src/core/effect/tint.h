// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/effect/light.h"

namespace chispa {

/// Cell `i` shows `light`, which is times its `coverage` already, `tint` 0–1 of the way to `colour`; all of
/// it times `level`.
inline void setTinted(LightBuffer& out, std::size_t i, Rgb light, float coverage, Rgb colour, float tint,
                      float level) noexcept {
  const auto mixed = [&](float there, float here) {
    return (there + (here * coverage - there) * tint) * level;
  };
  out.r[i] = mixed(light.r, colour.r);
  out.g[i] = mixed(light.g, colour.g);
  out.b[i] = mixed(light.b, colour.b);
  out.a[i] = coverage * level;
}

}  // namespace chispa
