// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/render/blend.h"

#include <algorithm>

namespace chispa {
namespace {

/// Applies `channel(base, top, topCoverage)` to red, green and blue, then unites the coverages.
template <class F>
void eachChannel(LightBuffer& base, const LightBuffer& top, std::size_t cells, float strength, F channel) noexcept {
  const auto run = [&](std::vector<float>& b, const std::vector<float>& t) {
    float* under = b.data();
    const float* over = t.data();
    const float* coverage = top.a.data();
    for (std::size_t i = 0; i < cells; ++i) under[i] = channel(under[i], over[i] * strength, coverage[i] * strength);
  };
  run(base.r, top.r);
  run(base.g, top.g);
  run(base.b, top.b);
  for (std::size_t i = 0; i < cells; ++i) base.a[i] += top.a[i] * strength * (1 - base.a[i]);
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

void blendOnto(LightBuffer& base, const LightBuffer& top, std::size_t cells, Blend blend, float strength) noexcept {
  switch (blend) {
    case Blend::Normal:
      return eachChannel(base, top, cells, strength, [](float b, float t, float a) { return t + b * (1 - a); });
    case Blend::Add:
      return eachChannel(base, top, cells, strength, [](float b, float t, float) { return std::min(1.f, b + t); });
    case Blend::Lighten:
      return eachChannel(base, top, cells, strength, [](float b, float t, float) { return std::max(b, t); });
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
