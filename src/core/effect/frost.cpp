// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/curves.h"
#include "core/effect/all.h"

namespace chispa {
namespace {

enum { Density, Rate, Length, White };

void render(const EffectInput& in, LightBuffer& out) noexcept {
  const float density = in.params.real(Density);
  const float length = in.params.real(Length);
  const float white = in.params.real(White);
  const double clock = in.t_s * in.params.number(Rate);
  const auto turns = static_cast<std::uint32_t>(static_cast<std::int64_t>(std::floor(clock)));
  const float begun = fraction(clock);
  const auto count = static_cast<std::size_t>(in.cells.count());
  for (std::size_t i = 0; i < count; ++i) {
    const std::uint32_t own = mixBits32(in.seed ^ static_cast<std::uint32_t>(i) * kGoldenBits32);
    const float u = begun + unitOf32(own);
    const bool isNext = u >= 1;
    const std::uint32_t luck = mixBits32(own + turns + (isNext ? 1u : 0u));
    const bool isLit = unitOf32(luck) < density && (isNext ? u - 1 : u) < length;
    const Rgb c = in.palette.clamped(unitOf32(luck << 12));
    out.set(i, {c.r + (1 - c.r) * white, c.g + (1 - c.g) * white, c.b + (1 - c.b) * white},
            isLit ? 1.f : 0.f);
  }
}

}  // namespace

Effect frost() {
  return {
      .key = "frost",
      .name = "Frost",
      .summary = "Hard white sparkle for the top layer: what lies below shows between the sparks.",
      .params = {numberParam("density", "Sparks", "of all cells", 0.001, 0.5, 0.05, 0.005),
                 numberParam("rate", "Chances", "per second", 0.5, 30, 8, 0.5),
                 numberParam("length", "Flash", "of a chance", 0.05, 1, 0.4),
                 numberParam("white", "Whiteness", "", 0, 1, 0.8)},
      .render = render,
      .group = EffectGroup::Sparks,
  };
}

}  // namespace chispa
