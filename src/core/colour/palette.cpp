// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/colour/palette.h"

#include <algorithm>

namespace chispa {
namespace {

Rgb mixed(Rgb from, Rgb to, float share) {
  const OkLab a = toOkLab(from);
  const OkLab b = toOkLab(to);
  const auto mix = [share](float x, float y) { return x + (y - x) * share; };
  return fromOkLab({mix(a.lightness, b.lightness), mix(a.a, b.a), mix(a.b, b.b)});
}

}  // namespace

Rgb colourAt(const Palette& palette, double at) {
  const auto& stops = palette.stops;
  if (stops.empty()) return {};
  const auto next =
      std::find_if(stops.begin(), stops.end(), [at](const ColourStop& stop) { return stop.at >= at; });
  if (next == stops.begin()) return toLinear(stops.front().colour);
  if (next == stops.end()) return toLinear(stops.back().colour);
  const auto before = std::prev(next);
  const double gap = next->at - before->at;
  const double share = gap > 0 ? (at - before->at) / gap : 1;
  return mixed(toLinear(before->colour), toLinear(next->colour), static_cast<float>(share));
}

PaletteTable::PaletteTable(const Palette& palette) {
  for (int i = 0; i <= kSteps; ++i)
    table_[static_cast<std::size_t>(i)] = colourAt(palette, static_cast<double>(i) / kSteps);
  // The last eighth of a loop leads back to the first colour, so that travelling light shows no seam.
  constexpr int kSeam = kSteps * 7 / 8;
  for (int i = 0; i < kSteps; ++i) {
    const auto at = static_cast<std::size_t>(i);
    if (i < kSeam)
      loop_[at] = table_[static_cast<std::size_t>(i * kSteps / kSeam)];
    else
      loop_[at] = mixed(table_[kSteps], table_[0], static_cast<float>(i - kSeam) / (kSteps - kSeam));
  }
}

}  // namespace chispa
