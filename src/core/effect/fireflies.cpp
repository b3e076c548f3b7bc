// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/curves.h"
#include "core/effect/all.h"
#include "core/effect/dots.h"
#include "core/effect/shade.h"

namespace chispa {
namespace {

enum { Flies, Wander, Glow, Size };

constexpr int kMaxFlies = 40;
/// How much of its time one glows.
constexpr float kGlows = 0.4f;

/// Brightness of a fly at `phase` 0–1 of its time: up softly, down more softly.
float glowOfFly(float phase) {
  if (phase >= kGlows) return 0;
  const float u = phase / kGlows;
  return easeBetween(0, 0.35f, u) * (1 - easeBetween(0.35f, 1, u));
}

/// One fly at an instant.
struct Fly {
  float x;
  float y;
  float light;
  float hue;
};

std::array<Fly, kMaxFlies> fliesOf(const EffectInput& in, const FacePlaces& face, int count) {
  std::array<Fly, kMaxFlies> flies;
  const double t = in.t_s * in.params.number(Wander);
  for (int k = 0; k < count; ++k) {
    const auto own = static_cast<std::uint64_t>(k) * 4;
    // Smooth noise leads each one about, over the whole face and a little beyond.
    const auto ledTo = [&](std::uint64_t way, float half) {
      return half * (2.6f * noise(in.seed + own + way, t, 0.5) - 1.3f);
    };
    const double round =
        in.t_s / in.params.number(Glow) * (0.8 + 0.4 * static_cast<double>(chance(in.seed, own, 2)));
    const float phase = fraction(round + static_cast<double>(chance(in.seed, own, 3)));
    flies[static_cast<std::size_t>(k)] = {ledTo(0, face.halfWidth()), ledTo(1, face.halfHeight()),
                                          glowOfFly(phase),
                                          chance(in.seed, static_cast<std::uint64_t>(k), 9)};
  }
  return flies;
}

CHISPA_MULTIVERSION void render(const EffectInput& in, LightBuffer& out) noexcept {
  const FacePlaces face(in.cells);
  const auto count = static_cast<int>(std::lround(in.params.number(Flies)));
  const std::array<Fly, kMaxFlies> flies = fliesOf(in, face, count);
  const DotReach reach = face.reachOf(1.5f * in.params.real(Size));
  shadeCells(in, out, [&](std::size_t i) -> Shade {
    const float x = face.x(i);
    const float y = face.y(i);
    float sum = 0;
    float hue = 0;
    for (int k = 0; k < count; ++k) {
      const Fly& fly = flies[static_cast<std::size_t>(k)];
      const float dx = x - fly.x;
      const float dy = y - fly.y;
      const float near = higher(0.f, 1 - (dx * dx + dy * dy) * reach.perSquare);
      const float light = near * near * fly.light * reach.light;
      sum += light;
      hue += light * fly.hue;
    }
    // Their light adds; where two meet, it has the hue between theirs.
    return {hue / higher(sum, 1e-6f), lower(1, sum)};
  });
}

}  // namespace

Effect fireflies() {
  return cellwise({
      .key = "fireflies",
      .name = "Fireflies",
      .summary = "Soft lights that wander, glow and go out.",
      .params = {numberParam("flies", "Fireflies", "", 1, kMaxFlies, 10, 1),
                 numberParam("wander", "Wander", "", 0.02, 3, 0.35),
                 numberParam("glow", "Glow every", "s", 0.4, 12, 2.5, 0.1),
                 numberParam("size", "Size", "", 0.01, 0.6, 0.12)},
      .render = render,
      .group = EffectGroup::Sparks,
  });
}

}  // namespace chispa
