// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/colour/palette.h"

#include <algorithm>
#include <cmath>
#include <cstring>

#include "core/base/multiversion.h"
#include "core/colour/oklch.h"

namespace chispa {
namespace {

Rgb mixedStraight(Rgb from, Rgb to, float share) {
  const OkLab a = toOkLab(from);
  const OkLab b = toOkLab(to);
  const auto mix = [share](float x, float y) { return x + (y - x) * share; };
  return fromOkLab({mix(a.lightness, b.lightness), mix(a.a, b.a), mix(a.b, b.b)});
}

/// What has less chroma than this has no hue to speak of.
constexpr double kGrey = 0.01;

Rgb mixedAlongHue(Rgb from, Rgb to, double share, bool isLonger) {
  OkLch a = toOkLch(from);
  OkLch b = toOkLch(to);
  if (a.chroma < kGrey) a.hue_deg = b.hue_deg;
  if (b.chroma < kGrey) b.hue_deg = a.hue_deg;
  double way_deg = std::remainder(b.hue_deg - a.hue_deg, 360);
  if (isLonger && a.chroma >= kGrey && b.chroma >= kGrey) way_deg += way_deg > 0 ? -360 : 360;
  const auto mix = [share](double x, double y) { return x + (y - x) * share; };
  return linearInGamut({mix(a.lightness, b.lightness), mix(a.chroma, b.chroma), a.hue_deg + way_deg * share});
}

Rgb mixed(PalettePath path, Rgb from, Rgb to, float share) {
  // The stops themselves stay what they are.
  if (share <= 0) return from;
  if (share >= 1) return to;
  if (path == PalettePath::Straight) return mixedStraight(from, to, share);
  return mixedAlongHue(from, to, static_cast<double>(share), path == PalettePath::LongerHue);
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
  return mixed(palette.path, toLinear(before->colour), toLinear(next->colour), static_cast<float>(share));
}

PaletteTable::PaletteTable(const Palette& palette) {
  for (int i = 0; i <= kSteps; ++i) open_.set(i, colourAt(palette, static_cast<double>(i) / kSteps));
  // The last eighth of a loop leads back to the first colour, so that travelling light shows no seam.
  constexpr int kSeam = kSteps * 7 / 8;
  for (int i = 0; i < kSteps; ++i)
    loop_.set(i, i < kSeam ? open_.at(i * kSteps / kSeam)
                           : mixed(palette.path, open_.at(kSteps), open_.at(0),
                                   static_cast<float>(i - kSeam) / (kSteps - kSeam)));
  loop_.set(kSteps, loop_.at(0));
}

// The steps first, then the look-ups: in one loop the compiler branches on the ends instead of computing
// eight cells at once. Entries are loaded whole, four cells at a time, and turned into channels; gathers are
// slower.
template <class StepOf>
CHISPA_INLINED inline void PaletteTable::lookUp(const Entries& colours, StepOf stepOf, const float* places,
                                                const float* strengths, std::size_t count,
                                                float* __restrict r, float* __restrict g,
                                                float* __restrict b) noexcept {
  constexpr std::size_t kBlock = 128;
  constexpr std::size_t kCells = 4;
  std::array<int, kBlock> steps;
  for (std::size_t first = 0; first < count; first += kBlock) {
    const std::size_t size = std::min(kBlock, count - first);
    for (std::size_t i = 0; i < size; ++i) steps[i] = stepOf(places[first + i]);
    std::size_t i = 0;
    for (; i + kCells <= size; i += kCells) {
      const Entry c0 = colours.load(steps[i]), c1 = colours.load(steps[i + 1]);
      const Entry c2 = colours.load(steps[i + 2]), c3 = colours.load(steps[i + 3]);
      const Entry rg01 = __builtin_shufflevector(c0, c1, 0, 4, 1, 5);
      const Entry rg23 = __builtin_shufflevector(c2, c3, 0, 4, 1, 5);
      const Entry b01 = __builtin_shufflevector(c0, c1, 2, 6, 3, 7);
      const Entry b23 = __builtin_shufflevector(c2, c3, 2, 6, 3, 7);
      Entry strength;
      std::memcpy(&strength, strengths + first + i, sizeof strength);
      const Entry red = __builtin_shufflevector(rg01, rg23, 0, 1, 4, 5) * strength;
      const Entry green = __builtin_shufflevector(rg01, rg23, 2, 3, 6, 7) * strength;
      const Entry blue = __builtin_shufflevector(b01, b23, 0, 1, 4, 5) * strength;
      std::memcpy(r + first + i, &red, sizeof red);
      std::memcpy(g + first + i, &green, sizeof green);
      std::memcpy(b + first + i, &blue, sizeof blue);
    }
    for (; i < size; ++i) {
      const Rgb colour = colours.at(steps[i]);
      r[first + i] = colour.r * strengths[first + i];
      g[first + i] = colour.g * strengths[first + i];
      b[first + i] = colour.b * strengths[first + i];
    }
  }
}

CHISPA_MULTIVERSION void PaletteTable::clamped(const float* places, const float* strengths, std::size_t count,
                                               float* __restrict r, float* __restrict g,
                                               float* __restrict b) const noexcept {
  lookUp(
      open_, [](float u) { return clampedStep(u); }, places, strengths, count, r, g, b);
}

CHISPA_MULTIVERSION void PaletteTable::wrapped(const float* places, const float* strengths, std::size_t count,
                                               float* __restrict r, float* __restrict g,
                                               float* __restrict b) const noexcept {
  lookUp(
      loop_, [](float u) { return wrappedStep(u); }, places, strengths, count, r, g, b);
}

}  // namespace chispa
