// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edit/palettestops.h"

#include <algorithm>

namespace chispa {
namespace {

/// Puts a stop where it belongs: behind those at the same place.
std::size_t insert(Palette& palette, ColourStop stop) {
  const auto behind = std::upper_bound(palette.stops.begin(), palette.stops.end(), stop.at,
                                       [](double at, const ColourStop& s) { return at < s.at; });
  const auto made = palette.stops.insert(behind, stop);
  return static_cast<std::size_t>(made - palette.stops.begin());
}

}  // namespace

std::size_t addStop(Palette& palette, double at) {
  at = std::clamp(at, 0.0, 1.0);
  return insert(palette, {at, toSrgb8(colourAt(palette, at))});
}

std::size_t moveStop(Palette& palette, std::size_t i, double at) {
  ColourStop stop = palette.stops.at(i);
  stop.at = std::clamp(at, 0.0, 1.0);
  // A stop that only comes to stand where its neighbour stands keeps its turn.
  const bool isInTurn = (i == 0 || palette.stops[i - 1].at <= stop.at) &&
                        (i + 1 == palette.stops.size() || stop.at <= palette.stops[i + 1].at);
  if (isInTurn) {
    palette.stops[i] = stop;
    return i;
  }
  palette.stops.erase(palette.stops.begin() + static_cast<std::ptrdiff_t>(i));
  return insert(palette, stop);
}

void removeStop(Palette& palette, std::size_t i) {
  if (palette.stops.size() > 1 && i < palette.stops.size())
    palette.stops.erase(palette.stops.begin() + static_cast<std::ptrdiff_t>(i));
}

void mirrorStops(Palette& palette) {
  std::vector<ColourStop> both;
  for (const ColourStop& stop : palette.stops) both.push_back({stop.at / 2, stop.colour});
  for (auto stop = palette.stops.rbegin(); stop != palette.stops.rend(); ++stop)
    if (stop->at < 1) both.push_back({1 - stop->at / 2, stop->colour});
  palette.stops = std::move(both);
}

void reverseStops(Palette& palette) {
  std::reverse(palette.stops.begin(), palette.stops.end());
  for (ColourStop& stop : palette.stops) stop.at = 1 - stop.at;
}

void closeLoop(Palette& palette) {
  auto& stops = palette.stops;
  if (stops.empty() || toSrgb8(colourAt(palette, 0)) == toSrgb8(colourAt(palette, 1))) return;
  const double share = static_cast<double>(stops.size()) / static_cast<double>(stops.size() + 1);
  for (ColourStop& stop : stops) stop.at *= share;
  stops.push_back({1, stops.front().colour});
}

}  // namespace chispa
