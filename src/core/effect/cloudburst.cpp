// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/curves.h"
#include "core/effect/all.h"
#include "core/effect/room.h"
#include "core/effect/shade.h"

namespace chispa {
namespace {

enum { Apart, Often, Speed, Length, Slant };

CHISPA_MULTIVERSION void render(const EffectInput& in, LightBuffer& out) noexcept {
  const auto perMetre = static_cast<float>(1 / in.params.number(Apart));
  const double speed = in.params.number(Speed);
  // From one drop of a column to the next.
  const double between_m = speed / in.params.number(Often);
  const float length = in.params.real(Length);
  const float edge = edgeOfSpeed(speed);
  const auto slant = static_cast<float>(in.params.number(Slant));
  const double fallen = speed * in.t_s;
  shadeCells(in, out, [&](std::size_t i) -> Shade {
    const Vec3 at = in.cells.position_m[i];
    const auto z = static_cast<float>(at.z);
    const auto column =
        static_cast<std::int32_t>(std::floor((static_cast<float>(at.x) + slant * z) * perMetre));
    const auto row = static_cast<std::int32_t>(std::floor(static_cast<float>(at.y) * perMetre));
    const std::uint64_t place = static_cast<std::uint64_t>(static_cast<std::uint32_t>(column)) << 32 |
                                static_cast<std::uint32_t>(row);
    // Drops one after the other in the column; each falls a little sooner or later than its turn.
    const double turn = (at.z + fallen) / between_m + static_cast<double>(chance(in.seed, place));
    const double number = std::floor(turn);
    const float late =
        0.6f *
        chance(in.seed ^ 0x9e37u, place * 31 + static_cast<std::uint64_t>(static_cast<std::int64_t>(number)));
    const float above = (fraction(turn) - late) * static_cast<float>(between_m);
    // The head is as bright as the drop, however fast it falls.
    const float tail = higher(0, 1 - higher(0, above - edge * 0.5f) / length);
    return {chance(in.seed + 1, place), past(above, edge) * tail * tail};
  });
}

}  // namespace

Effect cloudburst() {
  return cellwise({
      .key = "cloudburst",
      .name = "Cloudburst",
      .summary = "Rain that falls through the whole room at the speed of rain; pieces that hang in one "
                 "fall share its drops.",
      .params = {numberParam("apart", "Drops fall", "m apart", 0.03, 5, 0.25),
                 numberParam("often", "Drops", "per second", 0.05, 5, 0.5, 0.05),
                 numberParam("speed", "Fall at", "m/s", 0.1, 20, 4, 0.1),
                 numberParam("length", "Their length", "m", 0.02, 10, 0.7),
                 numberParam("slant", "Slant", "m sideways per metre", -2, 2, 0)},
      .render = render,
      .group = EffectGroup::Sparks,
  });
}

}  // namespace chispa
