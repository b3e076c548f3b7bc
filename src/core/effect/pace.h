// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/effect/effect.h"

namespace chispa {

// What runs through a zone has its speed from the music, or in metres a second, which is the same for pieces
// of any length.

/// Puts behind `own` whether the music or metres tell the speed, and how many metres a second.
inline std::vector<ParamSpec> withPace(std::vector<ParamSpec> own) {
  constexpr double kFastest = 30;
  own.push_back(choiceParam("pace", "Speed", {{"music", "as above"}, {"metres", "in metres per second"}}));
  ParamSpec metres = numberParam("metres", "Metres", "m/s", -kFastest, kFastest, 1, 0.05);
  metres.onlyIf = "pace";
  metres.onlyIfWord = "metres";
  own.push_back(std::move(metres));
  return own;
}

/// How far something has come since the clip began, and how fast it is, in units of which an effect has so
/// many on the zone's axis.
struct Pace {
  double done = 0;
  double perSecond = 0;
};

/// Units a second of what runs `metres_s` through a zone by an effect that has an axis, where `units` make
/// all of it.
inline double unitsPerSecond(const ZoneCells& cells, const ParamPack& params, double metres_s,
                             double units) noexcept {
  const Axis axis = cells.usable(params.axis(0));
  const bool isPlane = axis == Axis::Plane;
  return metres_s /
         cells.lengthAlong(axis, isPlane ? params.number(params.count() - 2) : 0,
                           isPlane ? params.number(params.count() - 1) : 0) *
         units;
}

/// The pace of an effect that has an axis: `byMusic`, or what the parameters of withPace() say, of which the
/// first is `pace`.
inline Pace paceOf(const EffectInput& in, std::size_t pace, double units, Pace byMusic) noexcept {
  if (in.params.choice(pace) == 0) return byMusic;
  const double perSecond = unitsPerSecond(in.cells, in.params, in.params.number(pace + 1), units);
  return {perSecond * in.t_s, perSecond};
}

}  // namespace chispa
