// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/effect/dots.h"

#include <algorithm>
#include <cmath>

#include "core/base/curves.h"
#include "core/base/multiversion.h"

namespace chispa {
namespace {

/// A face lower than this share of its width is a line.
constexpr float kLineHeight = 0.15f;
constexpr float kWidestCell = 0.3f;
constexpr std::size_t kBlock = 256;

/// Where some cells lie.
struct Bounds {
  float left = 1e9f, right = -1e9f, low = 1e9f, high = -1e9f;

  bool isReached(const LightDot& dot, float reach) const {
    return dot.x + reach > left && dot.x - reach < right && dot.y + reach > low && dot.y - reach < high;
  }
};

CHISPA_INLINED inline Bounds boundsOf(const FacePlaces& face, std::size_t first, std::size_t count) {
  Bounds bounds;
  for (std::size_t i = first; i < first + count; ++i) {
    const float x = face.x(i), y = face.y(i);
    bounds.left = lower(bounds.left, x);
    bounds.right = higher(bounds.right, x);
    bounds.low = lower(bounds.low, y);
    bounds.high = higher(bounds.high, y);
  }
  return bounds;
}

}  // namespace

FacePlaces::FacePlaces(const ZoneCells& cells) noexcept : x_(cells.x), y_(cells.y) {
  const auto count = static_cast<float>(std::max(1, cells.count()));
  halfWidth_ = cells.halfWidth;
  halfHeight_ = cells.halfHeight;
  if (cells.rows > 1) {
    cell_ = 2 / static_cast<float>(std::max(cells.columns, cells.rows));
    return;
  }
  if (halfHeight_ >= kLineHeight * halfWidth_ && halfWidth_ >= kLineHeight * halfHeight_) {
    cell_ = std::min(kWidestCell, 2 * std::sqrt(halfWidth_ * halfHeight_ / count));
    return;
  }
  x_ = cells.along(Axis::Along);
  scale_ = 2;
  offset_ = -1;
  upward_ = 0;
  halfWidth_ = 1;
  halfHeight_ = 0;
  cell_ = std::min(kWidestCell, 2 / count);
}

DotReach FacePlaces::reachOf(float asked) const noexcept {
  const float drawn = std::max(asked, 1.1f * cell_);
  const float share = asked / drawn;
  return {1 / (drawn * drawn), isLine() ? share : share * share};
}

CHISPA_MULTIVERSION void drawDots(const EffectInput& in, const FacePlaces& face,
                                  std::span<const LightDot> dots, LightBuffer& out) noexcept {
  out.clear(in.range.count);
  for (std::size_t done = 0; done < in.range.count; done += kBlock) {
    const std::size_t size = std::min(kBlock, in.range.count - done);
    const std::size_t first = in.range.first + done;
    float* __restrict r = out.r.data() + done;
    float* __restrict g = out.g.data() + done;
    float* __restrict b = out.b.data() + done;
    float* __restrict a = out.a.data() + done;
    const Bounds bounds = boundsOf(face, first, size);
    for (const LightDot& dot : dots) {
      if (dot.light <= 0) continue;
      const DotReach reach = face.reachOf(dot.reach);
      if (!bounds.isReached(dot, 1 / std::sqrt(reach.perSquare))) continue;
      const float full = dot.light * reach.light;
      for (std::size_t k = 0; k < size; ++k) {
        const float dx = face.x(first + k) - dot.x;
        const float dy = face.y(first + k) - dot.y;
        const float near = higher(0.f, 1 - (dx * dx + dy * dy) * reach.perSquare);
        const float light = near * near * full;
        r[k] += light * dot.colour.r;
        g[k] += light * dot.colour.g;
        b[k] += light * dot.colour.b;
        a[k] += light;
      }
    }
    for (float* channel : {r, g, b, a})
      for (std::size_t k = 0; k < size; ++k) channel[k] = lower(channel[k], 1.f);
  }
}

}  // namespace chispa
