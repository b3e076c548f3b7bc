// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/curves.h"
#include "core/effect/all.h"
#include "core/effect/room.h"
#include "core/effect/shade.h"
#include "core/zone/direction.h"

namespace chispa {
namespace {

enum { Speed, Apart, Thick, Trail, Turn, Tilt };

CHISPA_MULTIVERSION void render(const EffectInput& in, LightBuffer& out) noexcept {
  const double speed = in.params.number(Speed);
  const double apart = in.params.number(Apart);
  const Vec3 way = directionOf(in.params.number(Turn), in.params.number(Tilt));
  const double gone_m = speed * in.t_s;
  const float thick = in.params.real(Thick);
  const float trail = in.params.real(Trail) * static_cast<float>(apart);
  const float edge = edgeOfSpeed(speed);
  const float sign = speed < 0 ? -1.f : 1.f;
  shadeCells(in, out, [&](std::size_t i) -> Shade {
    // How far the front has gone beyond the cell.
    const double behind = (gone_m - dot(in.cells.position_m[i], way)) * static_cast<double>(sign);
    const float off = fraction(behind / apart) * static_cast<float>(apart);
    const float body =
        coverage(0, thick, off, edge) + coverage(0, thick, off - static_cast<float>(apart), edge);
    const float tail = higher(0, 1 - higher(0, off - thick) / higher(1e-3f, trail)) * past(off, edge);
    return {1 - within(0, 1, off / (thick + trail)), within(0, 1, higher(body, tail * tail))};
  });
}

}  // namespace

Effect front() {
  return cellwise({
      .key = "front",
      .name = "Front",
      .summary = "A wall of light that walks through the room, through every piece in its turn.",
      .params = {numberParam("speed", "Walks at", "m/s", -20, 20, 2, 0.1),
                 numberParam("apart", "The next one is", "m behind", 0.2, 60, 6, 0.1),
                 numberParam("thick", "Thickness", "m", 0.02, 20, 0.5, 0.02),
                 numberParam("trail", "Trail", "of the way between", 0, 1, 0.4),
                 numberParam("turn", "Walks towards", "°", -180, 180, 0, 1),
                 numberParam("tilt", "Upward", "°", -90, 90, 0, 1)},
      .render = render,
      .group = EffectGroup::Flows,
  });
}

}  // namespace chispa
