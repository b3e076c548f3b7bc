// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/curves.h"
#include "core/effect/all.h"
#include "core/effect/room.h"
#include "core/effect/shade.h"
#include "core/zone/direction.h"

namespace chispa {
namespace {

enum { From, X, Y, Z, Stride, Path, Reach, Turn };

constexpr int kPrints = 6;
constexpr float kFades_s = 0.9f;
/// How far apart the feet come down, in strides.
constexpr double kAside = 0.6;

struct Print {
  Vec3 at;
  float light = 0;
  float hue = 0;
};

/// The last prints of a walker that takes a step each time, left and right in turn, and begins its path anew.
std::array<Print, kPrints> printsOf(const EffectInput& in) {
  std::array<Print, kPrints> prints;
  const double walked = in.beats;
  const double stride = in.params.number(Stride);
  const auto steps = std::max(1.0, std::round(in.params.number(Path) / stride));
  const Vec3 way = directionOf(in.params.number(Turn), 0);
  const Vec3 left{-way.y, way.x, 0};
  const double pace_s = in.beatLength_s;
  for (int back = 0; back < kPrints; ++back) {
    const double step = std::floor(walked) - back;
    if (step < 0) break;
    const double place = step - std::floor(step / steps) * steps;
    const double side = std::fmod(step, 2) == 0 ? 0.5 : -0.5;
    const auto age = static_cast<float>((walked - step) * pace_s);
    // It comes down, not on: a frame or two.
    const float down = easeBetween(0, static_cast<float>(kSeenTogether_s), age);
    prints[static_cast<std::size_t>(back)] = {
        pointOf(in) + way * ((place - (steps - 1) / 2) * stride) + left * (side * kAside * stride),
        down * exponential(-age / kFades_s), static_cast<float>(place / steps)};
  }
  return prints;
}

CHISPA_MULTIVERSION void render(const EffectInput& in, LightBuffer& out) noexcept {
  const std::array<Print, kPrints> prints = printsOf(in);
  const float reach = in.params.real(Reach);
  const float perSquare = 1 / (reach * reach);
  shadeCells(in, out, [&](std::size_t i) -> Shade {
    float sum = 0;
    float hue = 0;
#pragma GCC unroll 6
    for (const Print& print : prints) {
      const float own = print.light * lampLight(squareApart(in.cells.position_m[i], print.at) * perSquare);
      hue += own * print.hue;
      sum += own;
    }
    return {hue / higher(sum, 1e-6f), lower(1, sum)};
  });
}

}  // namespace

Effect footfall() {
  return cellwise({
      .key = "footfall",
      .name = "Footfall",
      .summary =
          "Somebody whom nobody sees walks through the room, a step a beat, and light springs up underfoot.",
      .params = atPoint("Path", {numberParam("stride", "Stride", "m", 0.05, 5, 0.5, 0.05),
                                 numberParam("path", "Walks", "m", 0.2, 60, 4, 0.1),
                                 numberParam("reach", "Prints reach", "m", 0.05, 10, 0.6, 0.05),
                                 numberParam("turn", "Walks towards", "°", -180, 180, 0, 5)}),
      .render = render,
      .group = EffectGroup::Steps,
  });
}

}  // namespace chispa
