// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <cmath>
#include <functional>
#include <string>

#include "core/effect/effect.h"
#include "core/media/media.h"

namespace chispa::test {

/// The cells of one fixture of `shape`; a grid as a matrix.
inline ZoneCells cellsFor(const Shape& shape) {
  Show show;
  put(show.fixtures, Fixture{FixtureId{1}, "Thing", {}, {}, {{"s", shape, {}}}});
  const bool grid = std::holds_alternative<GridShape>(shape);
  return cellsOf(show, mapPixels(show),
                 {ZoneId{2},
                  "Z",
                  {{FixtureId{1}, std::nullopt, false}},
                  grid ? ZoneLayout::SideBySide : ZoneLayout::Strand,
                  1});
}

/// Changes what an effect is told.
using Tell = std::function<void(EffectInput& in)>;

inline constexpr double kTrialLength_s = 8;
inline constexpr double kTrialBar_s = 1.5;
inline constexpr double kTrialBeat_s = 0.5;

/// Runs an effect with its own defaults, or with `values`, at an instant of a plain beat of two a second,
/// three a bar; from red over white to blue.
inline LightBuffer run(const Effect& effect, const ZoneCells& cells, double t_s,
                       const ParamValues& values = {}, const MediaLibrary& media = {},
                       const Tell& tell = {}) {
  const ParamPack params(effect.params, values);
  static const PaletteTable colours(
      {PaletteId{1}, "P", {{0, {255, 0, 0}}, {0.5, {255, 255, 255}}, {1, {0, 40, 255}}}});
  const auto prepared = effect.prepare ? effect.prepare(params, media) : nullptr;
  const auto screen = effect.screenOf ? media.findLive(effect.screenOf(params)) : nullptr;
  std::vector<float> plane(static_cast<std::size_t>(cells.count()));
  EffectInput in{cells, params, colours};
  const Axis axis = cells.usable(effect.axisOf(params));
  if (axis == Axis::Plane)
    planePlaces(cells, params.number(params.count() - 2), params.number(params.count() - 1), plane);
  in.place = axis == Axis::Plane ? std::span<const float>(plane) : cells.along(axis);
  in.prepared = prepared.get();
  in.screen = screen.get();
  in.seed = 5;
  in.t_s = t_s;
  in.at = micros(t_s);
  in.length_s = kTrialLength_s;
  in.beats = t_s / kTrialBeat_s;
  in.bars = t_s / kTrialBar_s;
  in.beatInBar = std::fmod(in.beats, kTrialBar_s / kTrialBeat_s);
  in.beatsOfBar = kTrialBar_s / kTrialBeat_s;
  in.section = std::min(1.0, t_s / kTrialLength_s);
  in.level = 0.6f;
  in.bands.fill(0.5f);
  if (tell) tell(in);
  LightBuffer out;
  out.resize(static_cast<std::size_t>(cells.count()));
  effect.render(in, out);
  return out;
}

inline LightBuffer run(const std::string& key, const ZoneCells& cells, double t_s,
                       const ParamValues& values = {}, const Tell& tell = {}) {
  return run(*findEffect(key), cells, t_s, values, {}, tell);
}

/// How much light there is on the whole: the mean coverage.
inline double meanLight(const LightBuffer& light) {
  double sum = 0;
  for (const float a : light.a) sum += static_cast<double>(a);
  return light.a.empty() ? 0 : sum / static_cast<double>(light.a.size());
}

inline std::size_t brightest(const LightBuffer& light) {
  return static_cast<std::size_t>(std::max_element(light.a.begin(), light.a.end()) - light.a.begin());
}

}  // namespace chispa::test
