// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/effect/edges.h"
#include "core/effect/effect.h"

namespace chispa {

// For light that has a place and a size in the room, in metres: pieces that stand apart show one and the same
// thing, each the part that reaches it.

/// Where an effect's metres are counted from: the middle of the zone, or the room's zero, which is the same
/// for all zones.
inline ParamSpec fromParam() {
  return choiceParam("from", "Measured from", {{"zone", "the zone's middle"}, {"room", "the room's zero"}});
}
/// fromParam() and the three numbers of a point counted from there, before `rest`; `what` is what it is
/// called.
inline std::vector<ParamSpec> atPoint(const std::string& what, std::vector<ParamSpec> rest) {
  const auto metres = [&](const char* key, const char* way) {
    return numberParam(key, what + ", " + way, "m", -50, 50, 0, 0.05);
  };
  rest.insert(rest.begin(),
              {fromParam(), metres("x", "to the right"), metres("y", "back"), metres("z", "up")});
  return rest;
}

/// The point that fromParam() names, its parameter at `i`.
inline Vec3 originOf(const EffectInput& in, std::size_t i) noexcept {
  return in.params.choice(i) == 0 ? in.cells.frame.centre_m : Vec3{};
}
/// The point of atPoint().
inline Vec3 pointOf(const EffectInput& in) noexcept {
  return originOf(in, 0) + Vec3{in.params.number(1), in.params.number(2), in.params.number(3)};
}

/// How bright a small lamp makes what is `square` away, in squares of its reach: 1 beside it, a quarter at
/// its reach, a hundredth at three.
inline float lampLight(float square) noexcept {
  const float near = 1 / (1 + square);
  return near * near;
}

/// The square of how far `a` and `b` lie apart, in square metres.
inline float squareApart(Vec3 a, Vec3 b) noexcept {
  const Vec3 way = a - b;
  return static_cast<float>(dot(way, way));
}

/// What the edge of something is spread over that moves at `speed` metres a second, in metres.
inline float edgeOfSpeed(double speed) noexcept {
  constexpr double kFinest_m = 0.01;
  return static_cast<float>(std::max(kFinest_m, std::abs(speed) * kSeenTogether_s));
}

}  // namespace chispa
