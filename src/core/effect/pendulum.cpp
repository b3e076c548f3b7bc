// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/curves.h"
#include "core/base/vec3.h"
#include "core/effect/all.h"
#include "core/effect/room.h"
#include "core/effect/shade.h"

namespace chispa {
namespace {

/// The first four are those of atPoint().
enum { Swing = 4, Every, Reach, Turn };

/// The cord is so long: the lamp rises a little to both sides.
constexpr double kCord_m = 3;

CHISPA_MULTIVERSION void render(const EffectInput& in, LightBuffer& out) noexcept {
  const double turn = radians(in.params.number(Turn));
  const double swung = in.params.number(Swing) *
                       static_cast<double>(cosineOfTurns(fraction(in.beats / in.params.number(Every))));
  const Vec3 lamp =
      pointOf(in) + Vec3{swung * std::cos(turn), swung * std::sin(turn), swung * swung / (2 * kCord_m)};
  const float reach = in.params.real(Reach);
  const float perSquare = 1 / (reach * reach);
  shadeCells(in, out, [&](std::size_t i) -> Shade {
    const float square = squareApart(in.cells.position_m[i], lamp) * perSquare;
    return {1 - within(0, 1, std::sqrt(square) * 0.4f), lampLight(square)};
  });
}

}  // namespace

Effect pendulum() {
  return cellwise({
      .key = "pendulum",
      .name = "Pendulum",
      .summary = "A lamp on a cord swings through the room and lights what it passes.",
      .params = atPoint("Hangs at", {numberParam("swing", "Swings by", "m", 0, 20, 1.5, 0.05),
                                     numberParam("every", "A swing every", "beats", 0.5, 32, 4, 0.5),
                                     numberParam("reach", "Its light reaches", "m", 0.03, 20, 1.2, 0.01),
                                     numberParam("turn", "Swings towards", "°", -180, 180, 0, 1)}),
      .render = render,
      .group = EffectGroup::Flows,
  });
}

}  // namespace chispa
