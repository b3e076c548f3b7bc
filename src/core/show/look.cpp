// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/show/look.h"

#include <algorithm>

namespace chispa {

bool operator==(const LookStep& a, const LookStep& b) {
  const auto same = [](const auto& x, const auto& y) { return x == y || *x == *y; };
  return a.hold == b.hold && a.fade == b.fade &&
         std::equal(a.layers.begin(), a.layers.end(), b.layers.begin(), b.layers.end(), same);
}

Micros roundOf(const Look& look) {
  Micros sum{0};
  if (!look.hasSteps()) return sum;
  for (const LookStep& step : look.steps) sum += step.fade + step.hold;
  return sum;
}

std::vector<ZoneId> zonesOf(const Look& look) {
  std::vector<ZoneId> zones;
  for (const LookStep& step : look.steps)
    for (const auto& layer : step.layers)
      if (std::find(zones.begin(), zones.end(), layer->zone) == zones.end()) zones.push_back(layer->zone);
  return zones;
}

const Clip* findLayer(const Look& look, ClipId id) {
  for (const LookStep& step : look.steps)
    for (const auto& layer : step.layers)
      if (layer->id == id) return layer.get();
  return nullptr;
}

}  // namespace chispa
