// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/curves.h"
#include "core/effect/all.h"
#include "core/effect/edges.h"
#include "core/effect/pace.h"
#include "core/effect/shade.h"

namespace chispa {
namespace {

enum { Across, Period, Lit, Steps, Soft, Speed };

CHISPA_MULTIVERSION void render(const EffectInput& in, LightBuffer& out) noexcept {
  const auto period = static_cast<long>(std::lround(in.params.number(Period)));
  const double lit = in.params.number(Lit);
  const double steps = in.params.number(Steps);
  const auto count = static_cast<double>(in.place.size());
  const Pace pace = paceOf(in, Speed, count, {steps * in.beats, steps / in.beatLength_s});
  const double moved = pace.done;
  // Lamps that glide are at least as soft as they are fast.
  const float asked = in.params.real(Soft);
  const float soft = asked > 0 ? higher(asked, static_cast<float>(lampBlur(pace.perSecond))) : 0;
  // A chase counts lamps: one step moves it by one, whatever the length of the zone.
  const double jump = soft > 0 ? moved : std::floor(moved);
  shadeCells(in, out, [&](std::size_t i) -> Shade {
    const double lamp = std::floor(static_cast<double>(in.place[i]) * count);
    const float at = fraction((lamp - jump) / static_cast<double>(period)) * static_cast<float>(period);
    const auto on = static_cast<float>(lit);
    const float glow = soft > 0 ? easeBetween(0, soft, at) * (1 - easeBetween(on, on + soft, at))
                                : (at < on - 1e-3f ? 1.f : 0.f);
    const auto group = static_cast<std::uint64_t>(
        static_cast<std::int64_t>(std::floor((lamp - jump) / static_cast<double>(period))));
    constexpr std::uint64_t kColours = 5;
    return {(static_cast<float>(group % kColours) + 0.5f) / kColours, glow};
  });
}

}  // namespace

Effect chase() {
  return cellwise({
      .key = "chase",
      .name = "Chase",
      .summary = "Lamps run after each other with gaps between, gliding or step by step.",
      .params = across(Axis::Along,
                       withPace({numberParam("period", "Every", "lamps", 2, 60, 4, 1),
                                 numberParam("lit", "Lit", "lamps", 1, 30, 1, 1),
                                 numberParam("steps", "Steps per beat", "", -32, 32, 2, 0.5),
                                 numberParam("soft", "Softness (0: hard steps)", "lamps", 0, 4, 1, 0.1)})),
      .render = render,
      .group = EffectGroup::Steps,
  });
}

}  // namespace chispa
