// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/show/chipmix.h"

#include "core/base/multiversion.h"

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
CHISPA_MULTIVERSION void takeWhite(std::size_t count, Rgb like, float* __restrict r, float* __restrict g,
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

CHISPA_MULTIVERSION void weigh(std::size_t count, Rgb white, float* __restrict r, float* __restrict g,
                               float* __restrict b) noexcept {
  for (std::size_t i = 0; i < count; ++i) {
    r[i] *= white.r;
    g[i] *= white.g;
    b[i] *= white.b;
  }
}

/// A colour that would need more of a chip than there is becomes dimmer, not another one.
CHISPA_MULTIVERSION void keepColour(std::size_t count, float* __restrict r, float* __restrict g,
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
CHISPA_MULTIVERSION void noteTops(std::size_t count, const float* r, const float* g, const float* b,
                                  float* __restrict tops) noexcept {
  for (std::size_t i = 0; i < count; ++i) {
    const float top = most(r[i], g[i], b[i]);
    tops[i] = top < 1 ? top : 1;
  }
}

/// Each colour as bright as the chips can show it, times how bright it is meant; that becomes 0.
CHISPA_MULTIVERSION void brighten(std::size_t count, Rgb white, Rgb like, float* __restrict r,
                                  float* __restrict g, float* __restrict b, float* __restrict tops) noexcept {
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
CHISPA_MULTIVERSION void holdWhite(std::size_t count, Rgb like, float* __restrict r, float* __restrict g,
                                   float* __restrict b, float* __restrict w) noexcept {
  for (std::size_t i = 0; i < count; ++i) {
    const float over = w[i] > 1 ? w[i] - 1 : 0;
    w[i] -= over;
    r[i] += over * like.r;
    g[i] += over * like.g;
    b[i] += over * like.b;
  }
}

/// Light of two chips of their own, of the light of `like` and `other` of the three: of all that leaves the
/// colour as it is, the most.
struct TwoChips {
  Rgb like;
  Rgb other;

  bool fits(Rgb colour, float w, float a) const {
    constexpr float kRounding = 1e-6f;
    return w >= 0 && a >= 0 && colour.r - w * like.r - a * other.r >= -kRounding &&
           colour.g - w * like.g - a * other.g >= -kRounding &&
           colour.b - w * like.b - a * other.b >= -kRounding;
  }
  /// The corners of what is possible: one chip alone, or both until two of the three are used up.
  void take(Rgb colour, float& w, float& a) const {
    const float aloneW =
        least(colour.r * perPart(like.r), colour.g * perPart(like.g), colour.b * perPart(like.b));
    const float aloneA =
        least(colour.r * perPart(other.r), colour.g * perPart(other.g), colour.b * perPart(other.b));
    w = aloneW > aloneA ? aloneW : 0;
    a = aloneW > aloneA ? 0 : aloneA;
    const std::array<float, 3> left{colour.r, colour.g, colour.b}, first{like.r, like.g, like.b},
        second{other.r, other.g, other.b};
    for (std::size_t i = 0; i < 3; ++i) {
      const std::size_t k = (i + 1) % 3;
      const float across = first[i] * second[k] - first[k] * second[i];
      if (across > -1e-6f && across < 1e-6f) continue;
      const float bothW = (left[i] * second[k] - left[k] * second[i]) / across;
      const float bothA = (first[i] * left[k] - first[k] * left[i]) / across;
      if (bothW + bothA > w + a && fits(colour, bothW, bothA)) {
        w = bothW;
        a = bothA;
      }
    }
  }
};

/// As takeWhite(), of two such chips.
void takeTwo(std::size_t count, const TwoChips& two, float* r, float* g, float* b, float* w,
             float* a) noexcept {
  for (std::size_t i = 0; i < count; ++i) {
    two.take({r[i], g[i], b[i]}, w[i], a[i]);
    r[i] = r[i] - w[i] * two.like.r - a[i] * two.other.r;
    g[i] = g[i] - w[i] * two.like.g - a[i] * two.other.g;
    b[i] = b[i] - w[i] * two.like.b - a[i] * two.other.b;
    for (float* channel : {r, g, b}) channel[i] = channel[i] > 0 ? channel[i] : 0;
  }
}

}  // namespace

Rgb ChipMix::likeOfAmber() const {
  if (colours) return colours->amberChip();
  // As a screen's red and green would show it.
  static constexpr ChipColours kPlain;
  const Rgb amber = srgbOfXyz(xyzOf(kPlain.amber, kPlain.amberLight));
  return {amber.r, amber.g, amber.b > 0 ? amber.b : 0};
}

void ChipMix::share(std::size_t count, float* __restrict r, float* __restrict g, float* __restrict b,
                    float* __restrict w, float* __restrict a) const noexcept {
  if (isPlain()) return;
  if (!whites) return shareColours(count, r, g, b, w, a);
  for (std::size_t i = 0; i < count; ++i) {
    const auto light = whites->light({r[i], g[i], b[i]}, isBrightest);
    r[i] = g[i] = b[i] = 0;
    w[i] = light[0];
    a[i] = light[1];
  }
}

void ChipMix::shareColours(std::size_t count, float* __restrict r, float* __restrict g, float* __restrict b,
                           float* __restrict w, float* __restrict a) const noexcept {
  // The white chip's light is not known yet: until then its place holds how bright each colour is meant.
  if (isBrightest) noteTops(count, r, g, b, w);
  if (colours) colours->apply(count, r, g, b);
  const Rgb like = hasWhite ? likeOfWhite() : Rgb{0, 0, 0};
  if (isBrightest) brighten(count, white, like, r, g, b, w);
  if (hasWhite && hasAmber)
    takeTwo(count, {like, likeOfAmber()}, r, g, b, w, a);
  else if (hasWhite)
    takeWhite(count, like, r, g, b, w);
  else if (hasAmber)
    takeWhite(count, likeOfAmber(), r, g, b, a);
  if (hasWhite && isBrightest) holdWhite(count, like, r, g, b, w);
  if (hasAmber && isBrightest) holdWhite(count, likeOfAmber(), r, g, b, a);
  if (white != Rgb{1, 1, 1}) weigh(count, white, r, g, b);
  if (colours) keepColour(count, r, g, b);
}

ChipLight ChipMix::lightOfColours(float r, float g, float b) const {
  ChipLight chips{r, g, b, 0, 0};
  share(1, &chips[0], &chips[1], &chips[2], &chips[3], &chips[4]);
  return chips;
}

Rgb ChipMix::colourOf(const ChipLight& chips) const {
  if (whites) return whites->colourOf(chips[3], chips[4]);
  const Rgb like = hasWhite ? likeOfWhite() : Rgb{}, other = hasAmber ? likeOfAmber() : Rgb{};
  const auto balanced = [&](std::size_t c, float share, float ofWhite, float ofAmber) {
    return chips[c] / share + chips[3] * ofWhite + chips[4] * ofAmber;
  };
  const Rgb sum{balanced(0, white.r, like.r, other.r), balanced(1, white.g, like.g, other.g),
                balanced(2, white.b, like.b, other.b)};
  return colours ? colours->colourOf(sum) : sum;
}

}  // namespace chispa
