// SPDX-License-Identifier: GPL-3.0-or-later
#include "effectrun.h"

#include <cmath>

#include "carousel/carousel.h"
#include "effecttrial.h"

namespace chispa::bench {
namespace {

constexpr double kBeat_s = 0.5;
constexpr double kBar_s = 1.5;

}  // namespace

std::vector<LightPiece> lightPieces() {
  std::vector<LightPiece> all;
  all.push_back({"line of 300", test::cellsFor(LineShape{300, 1 / 60.0})});
  all.push_back({"ring of 24", test::cellsFor(ArcShape{24, 0.25})});
  all.push_back({"matrix 48 × 16", test::cellsFor(GridShape{48, 16, 0.03, 0.03})});
  const Show carousel = demo::carousel();
  all.push_back(
      {"carousel", cellsOf(carousel, mapPixels(carousel), *findNamed(carousel.zones, "Everything"))});
  return all;
}

EffectRun::EffectRun(const Effect& effect, const ZoneCells& cells, const ParamValues& values)
    : effect_(effect),
      cells_(cells),
      params_(effect.params, values),
      place_(static_cast<std::size_t>(cells.count())) {
  if (effect.prepare) prepared_ = effect.prepare(params_, {});
  light_.resize(static_cast<std::size_t>(cells.count()));
}

const LightBuffer& EffectRun::at(double t_s) {
  static const PaletteTable colours(
      {PaletteId{1}, "Trial", {{0, {255, 60, 20}}, {0.5, {255, 220, 120}}, {1, {40, 90, 255}}}});
  EffectInput in{cells_, params_, colours};
  const Axis axis = cells_.usable(effect_.axisOf(params_));
  if (axis == Axis::Plane)
    planePlaces(cells_, params_.number(effect_.roles.turn.value()),
                params_.number(effect_.roles.tilt.value()), place_);
  in.place = axis == Axis::Plane ? std::span<const float>(place_) : cells_.along(axis);
  in.prepared = prepared_.get();
  in.seed = 5;
  in.t_s = t_s;
  in.at = micros(t_s);
  in.length_s = kEffectLength_s;
  in.beats = t_s / kBeat_s;
  in.bars = t_s / kBar_s;
  in.beatInBar = std::fmod(in.beats, kBar_s / kBeat_s);
  in.beatsOfBar = kBar_s / kBeat_s;
  in.section = t_s / kEffectLength_s;
  // Loud on the beat, falling after it.
  in.level = static_cast<float>(0.25 + 0.6 * std::exp(-3 * (in.beats - std::floor(in.beats))));
  in.bands.fill(in.level * 0.8f);
  effect_.render(in, light_);
  return light_;
}

}  // namespace chispa::bench
