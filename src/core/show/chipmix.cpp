// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/show/chipmix.h"

#include "core/base/clones.h"

namespace chispa {
namespace {

/// The largest of three.
inline float most(float a, float b, float c) {
  const float ab = a > b ? a : b;
  return ab > c ? ab : c;
}
inline float least(float a, float b, float c) {
  const float ab = a < b ? a : b;
  return ab < c ? ab : c;
}

/// What a part of the white chip's light stands for; of none of it there is enough.
inline float perPart(float part) {
  return part > 1e-4f ? 1 / part : 1e9f;
}

/// The light of pixels of a strip that has a white chip of the light of `like` of the others: as much of it
/// as leaves the colour as it is.
CHISPA_CLONES void takeWhite(std::size_t count, Rgb like, float* __restrict r, float* __restrict g,
                             float* __restrict b, float* __restrict w) noexcept {
  const float perR = perPart(like.r), perG = perPart(like.g), perB = perPart(like.b);
  for (std::size_t i = 0; i < count; ++i) {
    const float common = least(r[i] * perR, g[i] * perG, b[i] * perB);
    w[i] = common;
    r[i] -= common * like.r;
    g[i] -= common * like.g;
    b[i] -= common * like.b;
  }
}

CHISPA_CLONES void weigh(std::size_t count, Rgb white, float* __restrict r, float* __restrict g,
                         float* __restrict b) noexcept {
  for (std::size_t i = 0; i < count; ++i) {
    r[i] *= white.r;
    g[i] *= white.g;
    b[i] *= white.b;
  }
}

/// A colour that would need more of a chip than there is becomes dimmer, not another one.
CHISPA_CLONES void keepColour(std::size_t count, float* __restrict r, float* __restrict g,
                              float* __restrict b) noexcept {
  for (std::size_t i = 0; i < count; ++i) {
    const float top = most(r[i], g[i], b[i]);
    const float share = top > 1 ? 1 / top : 1;
    r[i] *= share;
    g[i] *= share;
    b[i] *= share;
  }
}

}  // namespace

void ChipMix::share(std::size_t count, float* __restrict r, float* __restrict g, float* __restrict b,
                    float* __restrict w) const noexcept {
  if (isPlain()) return;
  if (colours) colours->apply(count, r, g, b);
  if (hasWhite) takeWhite(count, colours ? colours->whiteChip() : Rgb{1, 1, 1}, r, g, b, w);
  if (white != Rgb{1, 1, 1}) weigh(count, white, r, g, b);
  if (colours) keepColour(count, r, g, b);
}

std::array<float, 4> ChipMix::lightOfColours(float r, float g, float b) const {
  std::array<float, 4> chips{r, g, b, 0};
  share(1, &chips[0], &chips[1], &chips[2], &chips[3]);
  return chips;
}

Rgb ChipMix::colourOf(const std::array<float, 4>& chips) const {
  const Rgb like = colours && hasWhite ? colours->whiteChip() : Rgb{1, 1, 1};
  const Rgb balanced{chips[0] / white.r + chips[3] * like.r, chips[1] / white.g + chips[3] * like.g,
                     chips[2] / white.b + chips[3] * like.b};
  return colours ? colours->colourOf(balanced) : balanced;
}

}  // namespace chispa
