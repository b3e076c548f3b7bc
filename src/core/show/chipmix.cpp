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

/// The most light of the chips that shows a colour of which `r`, `g` and `b` are the parts, with `white` of
/// each chip for full balanced white and a white chip of the light of `like`, none if that is 0: how much
/// more it is.
inline float roomAbove(float r, float g, float b, Rgb white, Rgb like) {
  constexpr float kNone = 1e9f;
  const auto times = [](float all, float part) { return part > 1e-6f ? all / part : kNone; };
  const float perR = 1 / white.r, perG = 1 / white.g, perB = 1 / white.b;
  // As much of the white chip as the colour has in it, until that is at full.
  const float common = least(r * perPart(like.r), g * perPart(like.g), b * perPart(like.b));
  const float untilChip = least(times(perR, r - common * like.r), times(perG, g - common * like.g),
                                times(perB, b - common * like.b));
  if (untilChip * common < 1) return untilChip;
  return least(times(perR + like.r, r), times(perG + like.g, g), times(perB + like.b, b));
}

/// How bright colours are meant, 0–1.
CHISPA_CLONES void noteTops(std::size_t count, const float* r, const float* g, const float* b,
                            float* __restrict tops) noexcept {
  for (std::size_t i = 0; i < count; ++i) {
    const float top = most(r[i], g[i], b[i]);
    tops[i] = top < 1 ? top : 1;
  }
}

/// Each colour as bright as the chips can show it, times how bright it is meant; that becomes 0.
CHISPA_CLONES void brighten(std::size_t count, Rgb white, Rgb like, float* __restrict r, float* __restrict g,
                            float* __restrict b, float* __restrict tops) noexcept {
  for (std::size_t i = 0; i < count; ++i) {
    const float top = most(r[i], g[i], b[i]);
    const float whole = top > 1e-9f ? 1 / top : 0;
    const float share = roomAbove(r[i] * whole, g[i] * whole, b[i] * whole, white, like) * whole * tops[i];
    r[i] *= share;
    g[i] *= share;
    b[i] *= share;
    tops[i] = 0;
  }
}

/// As takeWhite(), with no more of the white chip than there is.
CHISPA_CLONES void holdWhite(std::size_t count, Rgb like, float* __restrict r, float* __restrict g,
                             float* __restrict b, float* __restrict w) noexcept {
  for (std::size_t i = 0; i < count; ++i) {
    const float over = w[i] > 1 ? w[i] - 1 : 0;
    w[i] -= over;
    r[i] += over * like.r;
    g[i] += over * like.g;
    b[i] += over * like.b;
  }
}

}  // namespace

void ChipMix::share(std::size_t count, float* __restrict r, float* __restrict g, float* __restrict b,
                    float* __restrict w) const noexcept {
  if (isPlain()) return;
  // The white chip's light is not known yet: until then its place holds how bright each colour is meant.
  if (isBrightest) noteTops(count, r, g, b, w);
  if (colours) colours->apply(count, r, g, b);
  const Rgb like = !hasWhite ? Rgb{0, 0, 0} : colours ? colours->whiteChip() : Rgb{1, 1, 1};
  if (isBrightest) brighten(count, white, like, r, g, b, w);
  if (hasWhite) takeWhite(count, like, r, g, b, w);
  if (hasWhite && isBrightest) holdWhite(count, like, r, g, b, w);
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
