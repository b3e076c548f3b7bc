// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/effect/all.h"
#include "core/effect/curves.h"
#include "core/effect/shade.h"

namespace chispa {
namespace {

enum { Every, Rise, Reach, Sparks, Burn };

/// One rocket: where it bursts, and when.
struct Rocket {
  float x;
  float y;
  float hue;
  float age;
};

constexpr int kMost = 4;

float glowAt(float x, float y, float far, float near) {
  const float off = lengthOf(x, y);
  return off >= far ? 0 : off <= near ? 1 : (far - off) / (far - near);
}

/// Light of one rocket at a point: a rising spark first, then a sphere of sparks that widens, sinks and burns
/// out.
float rocketAt(const EffectInput& in, const Rocket& rocket, float x, float y, std::uint64_t number) {
  const float rise = in.params.real(Rise);
  if (rocket.age < rise) {
    const float u = rocket.age / rise;
    const float height = -1.1f + (rocket.y + 1.1f) * (1 - (1 - u) * (1 - u));
    return glowAt(x - rocket.x, y - height, 0.14f, 0.04f);
  }
  const float burn = in.params.real(Burn);
  const float u = (rocket.age - rise) / burn;
  if (u >= 1) return 0;
  const float spread = in.params.real(Reach) * (1 - (1 - u) * (1 - u) * (1 - u));
  const float dx = x - rocket.x;
  const float dy = y - rocket.y + 0.35f * u * u;
  const float far = lengthOf(dx, dy);
  const auto sparks = std::round(in.params.real(Sparks));
  const float turn = (std::atan2(dy, dx) / static_cast<float>(2 * kPi) + 0.5f) * sparks;
  const float own = chance(in.seed, number, static_cast<std::uint64_t>(turn) + 3);
  const float reach = spread * (0.75f + 0.25f * own);
  const float shell = 1 - easeBetween(0, 0.1f + 0.25f * spread, std::abs(far - reach));
  const float ray = easeBetween(1, 0.35f, std::abs(fraction(static_cast<double>(turn)) - 0.5f) * 2);
  const float twinkle =
      u > 0.6f ? chance(in.seed, number,
                        static_cast<std::uint64_t>(turn) ^ static_cast<std::uint64_t>(in.t_s * 18))
               : 1.f;
  const float flash = u < 0.08f ? glowAt(dx, dy, 0.4f, 0.1f) : 0.f;
  return higher(flash, shell * (0.35f + 0.65f * ray) * (1 - u) * twinkle);
}

CHISPA_CLONES void render(const EffectInput& in, LightBuffer& out) noexcept {
  const double period = in.params.number(Every);
  const double now = in.beats / period;
  const auto latest = static_cast<long>(std::floor(now));
  const double beatLength = in.beatLength_s;
  Rocket rockets[kMost];
  std::uint64_t numbers[kMost];
  int flying = 0;
  for (long n = latest; n >= 0 && n > latest - kMost; --n) {
    const auto id = static_cast<std::uint64_t>(n);
    numbers[flying] = id;
    rockets[flying++] = {1.4f * chance(in.seed, id, 1) - 0.7f, 0.6f * chance(in.seed, id, 2),
                         chance(in.seed, id, 0),
                         static_cast<float>((now - static_cast<double>(n)) * period * beatLength)};
  }
  shadeCells(in, out, [&](std::size_t i) -> Shade {
    float glow = 0;
    float hue = 0;
    for (int k = 0; k < flying; ++k) {
      const float own = rocketAt(in, rockets[k], in.cells.x[i], in.cells.y[i], numbers[k]);
      if (own > glow) hue = rockets[k].hue;
      glow = higher(glow, own);
    }
    return {hue, lower(glow, 1.f)};
  });
}

}  // namespace

Effect rockets() {
  return cellwise({"rockets",
                   "Rockets",
                   "They rise, burst and rain down, one every few beats.",
                   {numberParam("every", "One every", "beats", 0.5, 16, 1.5, 0.25),
                    numberParam("rise", "Rises in", "s", 0.05, 3, 0.5, 0.05),
                    numberParam("reach", "Bursts to", "halves", 0.1, 3, 0.9, 0.05),
                    numberParam("sparks", "Sparks", "", 3, 60, 18, 1),
                    numberParam("burn", "Burns", "s", 0.2, 6, 1.4, 0.1)},
                   render,
                   EffectGroup::Sparks});
}

}  // namespace chispa
