// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/curves.h"
#include "core/effect/all.h"
#include "core/effect/room.h"
#include "core/effect/shade.h"
#include "core/zone/direction.h"

namespace chispa {
namespace {

enum { From, X, Y, Z, Size, Speed, Apart, Turn };

/// How far from the lamp to the light the balls walk, and how soft their shadow's edge is, in radii.
constexpr double kNear = 0.5;
constexpr float kSoft = 0.5f;

/// A lamp, and balls that walk between it and the cells: what they hide of it is dark.
CHISPA_MULTIVERSION void render(const EffectInput& in, LightBuffer& out) noexcept {
  const Vec3 lamp = pointOf(in);
  const Vec3 way = directionOf(in.params.number(Turn), 0);
  const double apart = in.params.number(Apart);
  const float radius = in.params.real(Size) / 2;
  // The lamp's own size blurs the shadow's edge, and so does the way of a ball while it is seen.
  const float soft = higher(radius * kSoft, edgeOfSpeed(in.params.number(Speed)));
  const Vec3 middle = lamp + (in.cells.frame.centre_m - lamp) * kNear;
  // Half as bright as under it where it is twice as far away.
  const float perSquare = 0.5f / higher(0.01f, squareApart(lamp, in.cells.frame.centre_m));
  const double gone = in.params.number(Speed) * in.t_s;
  shadeCells(in, out, [&](std::size_t i) -> Shade {
    // Where the ray from the lamp passes through the balls' path.
    const Vec3 ray = lamp + (in.cells.position_m[i] - lamp) * kNear - middle;
    const double along = dot(ray, way);
    const float off = (fraction((along - gone) / apart + 0.5) - 0.5f) * static_cast<float>(apart);
    const auto aside = static_cast<float>(dot(ray, ray) - along * along);
    const float far = std::sqrt(higher(0.f, aside) + off * off);
    const float open = past(far - radius, soft);
    const float bright = 1 / (1 + squareApart(in.cells.position_m[i], lamp) * perSquare);
    return {open * bright, open};
  });
}

}  // namespace

Effect penumbra() {
  Effect effect = cellwise({
      .key = "penumbra",
      .name = "Penumbra",
      .summary = "Balls walk past a lamp, and their shadows run over every piece in the room.",
      .params = atPoint("Lamp", {numberParam("size", "Balls", "m across", 0.02, 10, 0.5, 0.02),
                                 numberParam("speed", "Walk at", "m/s", -10, 10, 0.4, 0.05),
                                 numberParam("apart", "The next one is", "m behind", 0.1, 40, 1.5, 0.05),
                                 numberParam("turn", "Walk towards", "°", -180, 180, 0, 5)}),
      .render = render,
      .group = EffectGroup::Flows,
  });
  // The lamp hangs above.
  effect.params[Z].fallback = 2.0;
  return effect;
}

}  // namespace chispa
