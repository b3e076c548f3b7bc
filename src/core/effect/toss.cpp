// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/curves.h"
#include "core/effect/all.h"
#include "core/effect/edges.h"
#include "core/effect/shade.h"

namespace chispa {
namespace {

enum { Across, Balls, Bounces, Springy, Size, Hard };

/// Height 0–1 of a ball that is let go at 0 and loses all but `springy` of its speed at each bounce; begins
/// again when it lies.
float heightOf(double turns, float springy) {
  // The n-th hop takes springy^n of the first one's time, whose half is the first fall.
  constexpr int kMaxHops = 24;
  double length = 1;
  double total = 0.5;
  int hops = 1;
  for (; hops < kMaxHops && length > 0.06; ++hops) {
    length *= static_cast<double>(springy);
    total += length;
  }
  double t = std::fmod(turns, total);
  if (t < 0.5) return static_cast<float>(1 - 4 * t * t);
  t -= 0.5;
  double hop = static_cast<double>(springy);
  for (int n = 1; n < hops; ++n) {
    if (t < hop) {
      const double u = t / hop;
      return static_cast<float>(4 * hop * hop * u * (1 - u));
    }
    t -= hop;
    hop *= static_cast<double>(springy);
  }
  return 0;
}

CHISPA_MULTIVERSION void render(const EffectInput& in, LightBuffer& out) noexcept {
  const auto balls = static_cast<int>(std::lround(in.params.number(Balls)));
  const float springy = in.params.real(Springy);
  const float size = in.params.real(Size);
  const bool isHard = in.params.isOn(Hard);
  constexpr int kMax = 12;
  float height[kMax];
  // How far each is seen to move: it is drawn out by that.
  float reach[kMax];
  for (int ball = 0; ball < balls; ++ball) {
    const auto own = static_cast<double>(chance(in.seed, static_cast<std::uint64_t>(ball)));
    const double pace = in.params.number(Bounces) * (0.8 + 0.4 * own);
    const double turns = in.beats * pace + own * 3;
    const double seen = kSeenTogether_s / in.beatLength_s * pace / 2;
    height[ball] = heightOf(turns, springy);
    reach[ball] =
        in.params.isOn(Hard)
            ? 0
            : std::abs(heightOf(turns, springy) - heightOf(std::max(0.0, turns - seen), springy)) * 3;
  }
  const bool hasRows = in.cells.rows > 1;
  const auto column = in.cells.along(Axis::Columns);
  shadeCells(in, out, [&](std::size_t i) -> Shade {
    float glow = 0;
    int which = 0;
    for (int ball = 0; ball < balls; ++ball) {
      // On a matrix each ball has its own column, on a line they share it.
      const float beside =
          hasRows ? (column[i] - (static_cast<float>(ball) + 0.5f) / static_cast<float>(balls)) * 0.8f : 0;
      const float up = in.place[i] - size / 2 - height[ball] * (1 - size);
      const float off = lengthOf(up * size / (size + reach[ball]), beside) / (size / 2);
      const float own = isHard ? (off < 1 ? 1.f : 0.f) : 1 - easeBetween(0.05f, 1.25f, off);
      if (own > glow) which = ball;
      glow = higher(glow, own);
    }
    return {(static_cast<float>(which) + 0.5f) / static_cast<float>(balls), glow};
  });
}

}  // namespace

Effect toss() {
  return cellwise({
      .key = "toss",
      .name = "Toss",
      .summary = "Balls fall, bounce lower each time, and are thrown again.",
      .params = across(Axis::Rows, hardOrSoft({numberParam("balls", "Balls", "", 1, 12, 3, 1),
                                               numberParam("bounces", "Falls", "a beat", 0.1, 4, 0.5, 0.05),
                                               numberParam("springy", "Springiness", "", 0.3, 0.97, 0.82),
                                               numberParam("size", "Size", "of the zone", 0.01, 0.5, 0.12)})),
      .render = render,
      .group = EffectGroup::Sparks,
  });
}

}  // namespace chispa
