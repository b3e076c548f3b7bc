// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/render/blend.h"

#include <algorithm>

#include "core/base/clones.h"

namespace chispa {
namespace {

/// Applies `channel(base, top, topCoverage)` to red, green and blue, then unites the coverages.
template <class F>
CHISPA_INLINED inline void eachChannel(LightBuffer& base, const LightBuffer& top, std::size_t cells, float strength, F channel) noexcept {
  const auto run = [&](float* __restrict under, const float* over, const float* coverage) {
    for (std::size_t i = 0; i < cells; ++i) under[i] = channel(under[i], over[i] * strength, coverage[i] * strength);
  };
  run(base.r.data(), top.r.data(), top.a.data());
  run(base.g.data(), top.g.data(), top.a.data());
  run(base.b.data(), top.b.data(), top.a.data());
  float* __restrict under = base.a.data();
  const float* over = top.a.data();
  for (std::size_t i = 0; i < cells; ++i) under[i] += over[i] * strength * (1 - under[i]);
}

void mask(LightBuffer& base, const LightBuffer& top, std::size_t cells, float strength) noexcept {
  for (std::size_t i = 0; i < cells; ++i) {
    const float bright = std::min(1.f, std::max({top.r[i], top.g[i], top.b[i]}));
    const float keep = 1 - strength + strength * bright;
    for (auto* channel : {&base.r, &base.g, &base.b, &base.a}) (*channel)[i] *= keep;
  }
}

void cutOut(LightBuffer& base, const LightBuffer& top, std::size_t cells, float strength) noexcept {
  for (std::size_t i = 0; i < cells; ++i) {
    // How bright the layer below is decides how much of this one shows in its place.
    const float keep = std::min(1.f, std::max({base.r[i], base.g[i], base.b[i]}));
    const auto mix = [&](float under, float over) { return under + (over * keep - under) * strength; };
    base.r[i] = mix(base.r[i], top.r[i]);
    base.g[i] = mix(base.g[i], top.g[i]);
    base.b[i] = mix(base.b[i], top.b[i]);
    base.a[i] = mix(base.a[i], top.a[i]);
  }
}

}  // namespace

CHISPA_CLONES void blendOnto(LightBuffer& base, const LightBuffer& top, std::size_t cells, Blend blend, float strength) noexcept {
  switch (blend) {
    case Blend::Normal:
      return eachChannel(base, top, cells, strength, [](float b, float t, float a) { return t + b * (1 - a); });
    case Blend::Add:
      return eachChannel(base, top, cells, strength, [](float b, float t, float) { return b + t < 1 ? b + t : 1.f; });
    case Blend::Lighten:
      return eachChannel(base, top, cells, strength, [](float b, float t, float) { return b > t ? b : t; });
    case Blend::Multiply:
      return eachChannel(base, top, cells, strength, [](float b, float t, float a) { return b * (t + 1 - a); });
    case Blend::Screen:
      return eachChannel(base, top, cells, strength, [](float b, float t, float) { return b + t - b * t; });
    case Blend::Mask:
      return mask(base, top, cells, strength);
    case Blend::CutOut:
      return cutOut(base, top, cells, strength);
  }
}

}  // namespace chispa
