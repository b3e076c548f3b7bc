// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/render/blend.h"

#include <algorithm>

#include "core/base/multiversion.h"

namespace chispa {
namespace {

/// What is laid on, from its first cell on.
struct Top {
  const float* r;
  const float* g;
  const float* b;
  const float* a;
};

/// Applies `channel(base, top, topCoverage)` to red, green and blue.
template <class F>
CHISPA_INLINED inline void eachChannel(FramePart base, const Top& top, std::size_t cells, float strength,
                                       F channel) noexcept {
  const auto run = [&](float* __restrict under, const float* over, const float* coverage) {
    for (std::size_t i = 0; i < cells; ++i)
      under[i] = channel(under[i], over[i] * strength, coverage[i] * strength);
  };
  run(base.r, top.r, top.a);
  run(base.g, top.g, top.a);
  run(base.b, top.b, top.a);
}

/// Coverages unite.
CHISPA_INLINED inline void unite(float* __restrict under, const float* over, std::size_t cells,
                                 float strength) noexcept {
  for (std::size_t i = 0; i < cells; ++i) under[i] += over[i] * strength * (1 - under[i]);
}

/// How much of the light below is kept; `coverage` is null where it is whole.
void mask(FramePart base, float* coverage, const Top& top, std::size_t cells, float strength) noexcept {
  for (std::size_t i = 0; i < cells; ++i) {
    const float bright = std::min(1.f, std::max({top.r[i], top.g[i], top.b[i]}));
    const float keep = 1 - strength + strength * bright;
    for (float* channel : {base.r, base.g, base.b}) channel[i] *= keep;
    if (coverage) coverage[i] *= keep;
  }
}

void cutOut(FramePart base, float* coverage, const Top& top, std::size_t cells, float strength) noexcept {
  for (std::size_t i = 0; i < cells; ++i) {
    // How bright the layer below is decides how much of this one shows in its place.
    const float keep = std::min(1.f, std::max({base.r[i], base.g[i], base.b[i]}));
    const auto mix = [&](float under, float over) { return under + (over * keep - under) * strength; };
    base.r[i] = mix(base.r[i], top.r[i]);
    base.g[i] = mix(base.g[i], top.g[i]);
    base.b[i] = mix(base.b[i], top.b[i]);
    if (coverage) coverage[i] = mix(coverage[i], top.a[i]);
  }
}

CHISPA_INLINED inline void blendChannels(FramePart base, float* coverage, const Top& top, std::size_t cells,
                                         Blend blend, float strength) noexcept {
  switch (blend) {
    case Blend::Normal:
      eachChannel(base, top, cells, strength, [](float b, float t, float a) { return t + b * (1 - a); });
      break;
    case Blend::Add:
      eachChannel(base, top, cells, strength,
                  [](float b, float t, float) { return b + t < 1 ? b + t : 1.f; });
      break;
    case Blend::Lighten:
      eachChannel(base, top, cells, strength, [](float b, float t, float) { return b > t ? b : t; });
      break;
    case Blend::Multiply:
      eachChannel(base, top, cells, strength, [](float b, float t, float a) { return b * (t + 1 - a); });
      break;
    case Blend::Screen:
      eachChannel(base, top, cells, strength, [](float b, float t, float) { return b + t - b * t; });
      break;
    case Blend::Mask:
      return mask(base, coverage, top, cells, strength);
    case Blend::CutOut:
      return cutOut(base, coverage, top, cells, strength);
  }
  if (coverage) unite(coverage, top.a, cells, strength);
}

}  // namespace

CHISPA_MULTIVERSION void blendOnto(LightBuffer& base, const LightBuffer& top, std::size_t cells, Blend blend,
                                   float strength) noexcept {
  blendChannels({base.r.data(), base.g.data(), base.b.data()}, base.a.data(),
                {top.r.data(), top.g.data(), top.b.data(), top.a.data()}, cells, blend, strength);
}

CHISPA_MULTIVERSION void blendOntoFrame(FramePart base, const LightBuffer& top, std::size_t first,
                                        std::size_t count, Blend blend, float strength) noexcept {
  blendChannels(base, nullptr,
                {top.r.data() + first, top.g.data() + first, top.b.data() + first, top.a.data() + first},
                count, blend, strength);
}

}  // namespace chispa
