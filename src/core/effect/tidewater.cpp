// SPDX-License-Identifier: GPL-3.0-or-later
#include <numbers>

#include "core/base/curves.h"
#include "core/effect/all.h"
#include "core/effect/room.h"
#include "core/effect/shade.h"

namespace chispa {
namespace {

enum { From, Every, Low, High, Waves, Long, Foam };

CHISPA_MULTIVERSION void render(const EffectInput& in, LightBuffer& out) noexcept {
  const Vec3 origin = originOf(in, From);
  const float low = in.params.real(Low);
  const float high = in.params.real(High);
  const float share = 0.5f - 0.5f * cosineOfTurns(fraction(in.bars / in.params.number(Every)));
  const float level = low + (high - low) * share;
  const float deepest = higher(0.05f, std::abs(high - low));
  const float waves = in.params.real(Waves);
  const float perMetre = 1 / in.params.real(Long);
  const float foam = in.params.real(Foam);
  // Waves of two lengths that cross, each at a pace of its own.
  const float first = fraction(in.t_s * 0.31);
  const float second = fraction(in.t_s * -0.23);
  // The surface is seen over the way that it rises, or a wave does, while it is seen together.
  constexpr double kBeatsOfBar = 4;
  const double bar_s = kBeatsOfBar * in.beatLength_s;
  const double rises = std::numbers::pi * static_cast<double>(deepest) / (in.params.number(Every) * bar_s);
  constexpr float kThinnest_m = 0.03f;
  const float edge = kThinnest_m + edgeOfSpeed(rises + 2 * static_cast<double>(waves));
  constexpr float kWhitest = 0.8f;
  shadeHotCells(in, out, [&](std::size_t i) -> HotShade {
    const Vec3 at = in.cells.position_m[i] - origin;
    const auto x = static_cast<float>(at.x);
    const auto y = static_cast<float>(at.y);
    const float swell = sineOfTurns((x + 0.4f * y) * perMetre + first) +
                        0.6f * sineOfTurns((0.7f * y - 0.5f * x) * perMetre * 1.6f + second);
    const float depth = level + waves * swell - static_cast<float>(at.z);
    const float crest = higher(0, 1 - std::abs(depth) / higher(1e-3f, foam));
    return {1 - within(0, 1, depth / deepest), past(depth, edge), kWhitest * crest};
  });
}

}  // namespace

Effect tidewater() {
  return cellwise({
      .key = "tidewater",
      .name = "Tidewater",
      .summary = "Water that rises and falls in the room, its surface level through all pieces.",
      .params = {fromParam(), numberParam("every", "A tide every", "bars", 0.25, 64, 4, 0.25),
                 numberParam("low", "Lowest", "m", -50, 50, -0.6, 0.05),
                 numberParam("high", "Highest", "m", -50, 50, 0.6, 0.05),
                 numberParam("waves", "Waves", "m high", 0, 2, 0.05),
                 numberParam("long", "Their length", "m", 0.1, 20, 1.2, 0.1),
                 numberParam("foam", "Foam", "m", 0, 1, 0.08)},
      .render = render,
      .group = EffectGroup::Textures,
  });
}

}  // namespace chispa
