// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/curves.h"
#include "core/effect/all.h"
#include "core/effect/dots.h"

namespace chispa {
namespace {

enum { Strikes, Length, Width, Sky, Branches };

/// Strikes that may still be seen, the newest first.
constexpr int kSeen = 3;
constexpr int kLevels = 48;
constexpr int kForks = 4;

/// One lightning: where its channel and its branches run, by height from the ground up, and how bright it is.
struct Lightning {
  std::array<float, kLevels> channel;
  struct Fork {
    /// The height that it leaves the channel at, downwards from there, and how far aside it goes for each
    /// height.
    float from;
    float aside;
    std::uint64_t number;
  };
  std::array<Fork, kForks> forks;
  float light = 0;
  float sky = 0;
};

/// Light of the channel `age` seconds after the first stroke: two or three strokes run down the same way,
/// each dimmer, and each is gone in a moment.
float strokesAt(std::uint32_t seed, std::uint64_t id, double age, double length) {
  constexpr double kFades_s = 0.07;
  const int strokes = 2 + (chance(seed, id, 20) < 0.6f ? 1 : 0);
  double begun = 0;
  float light = 0;
  for (int n = 0; n < strokes; ++n) {
    if (age >= begun) {
      const auto strength = static_cast<float>(std::pow(0.72, n));
      light = higher(light, strength * exponential(static_cast<float>((begun - age) / kFades_s)));
    }
    begun +=
        length * (0.12 + 0.16 * static_cast<double>(chance(seed, id, 21 + static_cast<std::uint64_t>(n))));
  }
  return light;
}

Lightning lightningOf(const EffectInput& in, const FacePlaces& face, std::uint64_t id, double age) {
  Lightning one;
  const double length = in.params.number(Length);
  one.light = strokesAt(in.seed, id, age, length);
  // The clouds go on glowing: they rise once and decay.
  one.sky = in.params.real(Sky) * easeBetween(0, 0.05f, static_cast<float>(age)) *
            exponential(static_cast<float>(-3 * age / length));
  const float foot = face.halfWidth() * (1.6f * chance(in.seed, id, 2) - 0.8f);
  const double crook = face.isLine() ? 0 : 1;
  for (int n = 0; n < kLevels; ++n) {
    const double up = static_cast<double>(n) / (kLevels - 1);
    const double bend = 0.55 * (static_cast<double>(noise(in.seed ^ id, up * 3, 0.5)) - 0.5) +
                        0.26 * (static_cast<double>(noise(in.seed ^ (id + 9), up * 9, 0.5)) - 0.5) +
                        0.1 * (static_cast<double>(noise(in.seed ^ (id + 5), up * 24, 0.5)) - 0.5);
    one.channel[static_cast<std::size_t>(n)] = foot + static_cast<float>(bend * crook);
  }
  for (std::uint64_t n = 0; n < kForks; ++n) {
    const float side = chance(in.seed, id, 30 + n) < 0.5f ? -1.f : 1.f;
    one.forks[n] = {0.3f + 0.6f * chance(in.seed, id, 40 + n),
                    side * in.params.real(Branches) * (0.35f + 0.8f * chance(in.seed, id, 50 + n)),
                    id * 8 + n};
  }
  return one;
}

/// How bright a line is `off` beside its middle, `width` to where it ends.
float lineLight(float off, float width) {
  const float near = higher(0.f, 1 - off / width);
  return near * near;
}

/// Light of the channel and its branches at (x, y), the height 0 at the ground and 1 in the clouds.
float boltAt(const EffectInput& in, const Lightning& one, float x, float up, float width, bool isLine) {
  const float level = within(0, kLevels - 1.001f, up * (kLevels - 1));
  const auto index = static_cast<std::size_t>(level);
  const float channel = one.channel[index] +
                        (one.channel[index + 1] - one.channel[index]) * (level - static_cast<float>(index));
  float light = lineLight(std::abs(x - channel), width);
  if (isLine || in.params.real(Branches) <= 0) return light;
  for (const Lightning::Fork& fork : one.forks) {
    const float below = fork.from - up;
    if (below < 0 || below > 0.45f) continue;
    const float from = one.channel[static_cast<std::size_t>(fork.from * (kLevels - 1))];
    const float crook = 0.12f * (noise(in.seed + fork.number, static_cast<double>(up) * 14, 0.5) - 0.5f);
    const float at = from + fork.aside * below + crook * lower(1, below * 8);
    light = higher(light, 0.55f * (1 - below / 0.45f) * lineLight(std::abs(x - at), width * 0.7f));
  }
  return light;
}

void render(const EffectInput& in, LightBuffer& out) noexcept {
  const double rate = in.params.number(Strikes);
  const FacePlaces face(in.cells);
  const float width = higher(in.params.real(Width), 1.3f * face.cell());
  const double now = in.t_s * rate;
  out.clear(in.range.count);
  for (int back = 0; back < kSeen; ++back) {
    const double turn = std::floor(now) - back;
    if (turn < 0) break;
    const auto id = static_cast<std::uint64_t>(turn);
    const double age = in.t_s - (turn + 0.7 * static_cast<double>(chance(in.seed, id, 1))) / rate;
    if (age < 0) continue;
    const Lightning one = lightningOf(in, face, id, age);
    if (one.light < 1e-3f && one.sky < 1e-3f) continue;
    const Rgb glow = in.palette.clamped(0.15f);
    const Rgb hue = in.palette.clamped(0.7f);
    for (std::size_t k = 0; k < in.range.count; ++k) {
      const std::size_t i = in.range.first + k;
      const float up = face.isLine() ? 0.5f : 0.5f + 0.5f * face.y(i) / face.halfHeight();
      const float bolt =
          one.light > 1e-3f ? boltAt(in, one, face.x(i), up, width, face.isLine()) * one.light : 0;
      // The core is white, its rim has the palette's colour, and the sky is brightest in the clouds.
      const float sky = one.sky * (0.45f + 0.55f * up);
      const float white = bolt * bolt;
      out.r[k] = lower(1, out.r[k] + sky * glow.r + bolt * (hue.r + (1 - hue.r) * white));
      out.g[k] = lower(1, out.g[k] + sky * glow.g + bolt * (hue.g + (1 - hue.g) * white));
      out.b[k] = lower(1, out.b[k] + sky * glow.b + bolt * (hue.b + (1 - hue.b) * white));
      out.a[k] = lower(1, out.a[k] + sky + bolt);
    }
  }
}

}  // namespace

Effect storm() {
  return cellwise({
      .key = "storm",
      .name = "Storm",
      .summary = "Lightning: white strokes that branch, and a sky that glows on after them.",
      .params = {numberParam("strikes", "Strikes", "per second", 0.05, 1.5, 0.5, 0.05),
                 numberParam("length", "Flickers for", "s", 0.1, 2, 0.6, 0.05),
                 numberParam("width", "Width", "", 0.01, 0.6, 0.05),
                 numberParam("sky", "Sky", "", 0, 1, 0.15),
                 numberParam("branches", "Branches", "", 0, 2, 0.6, 0.05)},
      .render = render,
      .group = EffectGroup::Textures,
  });
}

}  // namespace chispa
