// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/curves.h"
#include "core/effect/all.h"
#include "core/effect/room.h"
#include "core/effect/shade.h"

namespace chispa {
namespace {

/// The first four are those of atPoint().
enum { Every = 4, Speed, Thick, Reach };

constexpr long kMax = 8;

CHISPA_MULTIVERSION void render(const EffectInput& in, LightBuffer& out) noexcept {
  const Vec3 middle = pointOf(in);
  const double every = in.params.number(Every);
  const double speed = in.params.number(Speed);
  const float thick = in.params.real(Thick);
  const float edge = edgeOfSpeed(speed);
  const float reach = in.params.real(Reach);
  const double now = in.beats / every;
  const auto latest = static_cast<long>(std::floor(now));
  // A beat as long as the clip's beats are now.
  const double beat_s = in.beatLength_s / std::max(1e-3, in.speed);
  shadeCells(in, out, [&](std::size_t i) -> Shade {
    const float far = std::sqrt(squareApart(in.cells.position_m[i], middle));
    const float weaker = exponential(-far / reach);
    float light = 0;
    for (long n = latest; n >= 0 && n > latest - kMax; --n) {
      const double age_s = (now - static_cast<double>(n)) * every * beat_s;
      const float behind = static_cast<float>(age_s * speed) - far;
      // Sharp in front, soft behind.
      const float tail = higher(0, 1 - higher(0, behind - edge * 0.5f) / thick);
      light = higher(light, past(behind, edge) * tail * tail);
    }
    return {1 - within(0, 1, far / reach), light * weaker};
  });
}

}  // namespace

Effect soundings() {
  return cellwise({
      .key = "soundings",
      .name = "Soundings",
      .summary = "A sphere that swells from a point of the room at a speed in metres, one every few beats.",
      .params = atPoint("Point", {numberParam("every", "One every", "beats", 0.25, 32, 2, 0.25),
                                  numberParam("speed", "Swells at", "m/s", 0.1, 60, 3, 0.1),
                                  numberParam("thick", "Thickness", "m", 0.02, 10, 0.6),
                                  numberParam("reach", "Reaches", "m", 0.1, 60, 6, 0.1)}),
      .render = render,
      .group = EffectGroup::Flows,
  });
}

}  // namespace chispa
