// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/effect/all.h"
#include "core/effect/curves.h"

namespace chispa {
namespace {

enum { Strikes, Length, Width, Sky, Branches };

constexpr int kTries = 3;

/// How far into a strike of `length` seconds: 0–1 bright, from flickers that chance decides.
float flicker(std::uint64_t seed, double age, double length) {
  if (age < 0 || age >= length) return 0;
  const float fall = 1 - static_cast<float>(age / length);
  return fall * (0.35f + 0.65f * chance(seed, static_cast<std::uint64_t>(age * 24)));
}

void render(const EffectInput& in, LightBuffer& out) noexcept {
  const double rate = in.params.number(Strikes);
  const double length = in.params.number(Length);
  const float width = in.params.real(Width);
  const float sky = in.params.real(Sky);
  const float branches = in.params.real(Branches);
  const double now = in.t_s * rate;
  const auto count = static_cast<std::size_t>(in.cells.count());
  const bool isFlat = in.cells.rows == 1;
  for (std::size_t i = 0; i < count; ++i) out.set(i, {}, 0);
  for (int back = 0; back < kTries; ++back) {
    const double turn = std::floor(now) - back;
    if (turn < 0) break;
    const auto id = static_cast<std::uint64_t>(turn);
    const double begins = (turn + 0.7 * static_cast<double>(chance(in.seed, id, 1))) / rate;
    const float lit = flicker(in.seed ^ id, in.t_s - begins, length);
    if (lit <= 0) continue;
    const float foot = 1.6f * chance(in.seed, id, 2) - 0.8f;
    for (std::size_t i = 0; i < count; ++i) {
      const float across = isFlat ? 2 * in.cells.along(Axis::Along)[i] - 1 : in.cells.x[i];
      const auto up = static_cast<double>(in.cells.y[i]);
      const float bend = isFlat ? 0
                                : 0.5f * (noise(in.seed ^ id, up * 2.5, 0.5) - 0.5f) +
                                      0.3f * (noise(in.seed ^ (id + 9), up * 7, 0.5) - 0.5f);
      const float fork = isFlat ? 9.f
                                : std::abs(across - foot - bend -
                                           branches * (1 - in.cells.y[i]) * (chance(in.seed, id, 4) - 0.5f));
      const float off = lower(std::abs(across - foot - bend), branches > 0 ? fork * 1.6f : 9.f);
      const float bolt = 1 - easeBetween(width * 0.3f, width, off);
      const float glow = higher(bolt, sky) * lit;
      if (glow > out.a[i]) out.set(i, in.palette.clamped(bolt * 0.6f + 0.4f * lit), lower(glow, 1.f));
    }
  }
}

}  // namespace

Effect storm() {
  return {"storm",
          "Storm",
          "Lightning: bolts that flicker and light up the sky.",
          {numberParam("strikes", "Strikes", "a second", 0.05, 1.5, 0.5, 0.05),
           numberParam("length", "Flickers for", "s", 0.1, 2, 0.6, 0.05),
           numberParam("width", "Width", "", 0.01, 0.6, 0.12), numberParam("sky", "Sky", "", 0, 1, 0.15),
           numberParam("branches", "Branches", "", 0, 2, 0.6, 0.05)},
          render,
          EffectGroup::Textures};
}

}  // namespace chispa
