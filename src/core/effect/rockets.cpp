// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/curves.h"
#include "core/effect/all.h"
#include "core/effect/dots.h"
#include "core/effect/edges.h"

namespace chispa {
namespace {

enum { Every, Rise, Reach, Sparks, Burn };

constexpr int kMaxRockets = 4;
constexpr int kMaxSparks = 60;
/// A spark is seen where it is and where it was.
constexpr int kDotsOfSpark = 2;

/// Dots that are drawn, as many as there is room for.
struct Sky {
  std::array<LightDot, kMaxRockets*(kMaxSparks* kDotsOfSpark + 1)> dots;
  std::size_t count = 0;

  void add(const LightDot& dot) {
    if (count < dots.size()) dots[count++] = dot;
  }
};

Rgb whitened(Rgb colour, float white) {
  return {colour.r + (1 - colour.r) * white, colour.g + (1 - colour.g) * white,
          colour.b + (1 - colour.b) * white};
}

/// One rocket: number, where it bursts, and how long ago it was lit.
class Rocket {
 public:
  Rocket(const EffectInput& in, const FacePlaces& face, std::uint64_t number, float age)
      : in_(in), face_(face), number_(number), age_(age) {
    x_ = (face.isLine() ? 0.7f : 1.4f) * face.halfWidth() * (chance(in.seed, number, 1) - 0.5f);
    y_ = face.halfHeight() * (0.1f + 0.5f * chance(in.seed, number, 2));
    // A burst is as large as the face, wide or high.
    size_ = face.isLine() ? 1 : std::max(0.35f, std::min(1.f, 1.6f * face.halfHeight()));
  }

  void draw(Sky& sky) const {
    const float rise = in_.params.real(Rise);
    age_ < rise ? drawRising(age_ / rise, sky) : drawBurst((age_ - rise) / in_.params.real(Burn), sky);
  }

 private:
  /// A hot head on its way up, or along a line, slower and slower; its tail burns out behind it.
  void drawRising(float u, Sky& sky) const {
    constexpr int kTail = 5;
    // Along a line, where it is fast, it is drawn out by its way while it is seen.
    const float way = face_.isLine() ? x_ + 1 : 0;
    const float reach =
        0.09f * size_ + way * (1 - u) * static_cast<float>(kSeenTogether_s) / in_.params.real(Rise);
    for (int n = 0; n < kTail; ++n) {
      const float then = higher(0, u - 0.05f * static_cast<float>(n));
      const float gone = 1 - (1 - then) * (1 - then);
      const float share = 1 - static_cast<float>(n) / kTail;
      const float x = face_.isLine() ? -1 + (x_ + 1) * gone : x_;
      const float y = face_.isLine() ? 0 : -face_.halfHeight() + (y_ + face_.halfHeight()) * gone;
      sky.add({x, y, reach, whitened(in_.palette.clamped(0.5f), 0.6f * share),
               share * share * (n == 0 ? 1 : 0.6f)});
    }
  }

  /// Sparks fly out, ever slower, sink and burn out; the newest are white-hot.
  void drawBurst(float u, Sky& sky) const {
    if (u >= 1) return;
    const auto sparks = static_cast<int>(std::lround(in_.params.number(Sparks)));
    const float hue = chance(in_.seed, number_, 0);
    const float flash = easeBetween(0, 0.04f, u) * (1 - easeBetween(0.04f, 0.15f, u));
    sky.add({x_, y_, 0.3f * size_, whitened(in_.palette.clamped(hue), 0.8f), 0.8f * flash});
    for (int n = 0; n < sparks; ++n) drawSpark(n, sparks, hue, u, sky);
  }

  void drawSpark(int n, int sparks, float hue, float u, Sky& sky) const {
    const auto own = static_cast<std::uint64_t>(n) + 16;
    const float luck = chance(in_.seed, number_, own);
    const float turn = (static_cast<float>(n) + luck) / static_cast<float>(sparks);
    // Towards the eye too: not all fly sideways.
    const float speed = 0.3f + 0.7f * std::sqrt(chance(in_.seed + 1, number_, own));
    const float glimmer =
        1 - easeBetween(0.4f, 0.8f, u) * 0.7f *
                noise(in_.seed + own, static_cast<double>(age_) * 9, static_cast<double>(number_));
    const Rgb colour = whitened(in_.palette.clamped(within(0, 1, hue + 0.2f * (luck - 0.5f))),
                                0.7f * (1 - easeBetween(0, 0.3f, u)));
    for (int back = 0; back < kDotsOfSpark; ++back) {
      const float then = higher(0, u - 0.07f * static_cast<float>(back));
      const float slowed = 1 - (1 - then) * (1 - then) * (1 - then);
      const float out = in_.params.real(Reach) * size_ * speed * slowed;
      const float sinks = face_.isLine() ? 0 : 0.3f * size_ * then * then;
      sky.add({x_ + out * cosineOfTurns(turn), y_ + out * sineOfTurns(turn) - sinks,
               0.12f * size_ * (1 - 0.5f * u), colour,
               easeBetween(0, 0.07f, u) * (1 - u) * (1 - u * u) * glimmer * (back == 0 ? 1 : 0.35f)});
    }
  }

  const EffectInput& in_;
  const FacePlaces& face_;
  std::uint64_t number_;
  float age_;
  float x_ = 0;
  float y_ = 0;
  float size_ = 1;
};

void render(const EffectInput& in, LightBuffer& out) noexcept {
  const double period = in.params.number(Every);
  const double now = in.beats / period;
  const auto latest = static_cast<long>(std::floor(now));
  const FacePlaces face(in.cells);
  Sky sky;
  for (long n = latest; n >= 0 && n > latest - kMaxRockets; --n) {
    const double age_s = (now - static_cast<double>(n)) * period * in.beatLength_s;
    Rocket(in, face, static_cast<std::uint64_t>(n), static_cast<float>(age_s)).draw(sky);
  }
  drawDots(in, face, std::span(sky.dots).first(sky.count), out);
}

}  // namespace

Effect rockets() {
  return cellwise({
      .key = "rockets",
      .name = "Rockets",
      .summary = "They rise, burst and rain down, one every few beats.",
      .params = {numberParam("every", "One every", "beats", 0.5, 16, 1.5, 0.25),
                 numberParam("rise", "Rises in", "s", 0.05, 3, 0.5, 0.05),
                 numberParam("reach", "Bursts to", "of the face", 0.1, 3, 0.9, 0.05),
                 numberParam("sparks", "Sparks", "", 3, kMaxSparks, 18, 1),
                 numberParam("burn", "Burns", "s", 0.2, 6, 1.4, 0.1)},
      .render = render,
      .group = EffectGroup::Sparks,
  });
}

}  // namespace chispa
