// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/colour/oklch.h"

#include <algorithm>
#include <cmath>
#include <span>

#include "core/base/hash.h"
#include "core/base/vec3.h"

namespace chispa {
namespace {

std::vector<ColourStop> spreadOut(const std::vector<Srgb8>& colours) {
  std::vector<ColourStop> stops;
  for (std::size_t i = 0; i < colours.size(); ++i)
    stops.push_back(
        {colours.size() < 2 ? 0 : static_cast<double>(i) / static_cast<double>(colours.size() - 1),
         colours[i]});
  return stops;
}

Rgb linearOf(const OkLch& c) {
  const double hue = radians(c.hue_deg);
  return fromOkLab({static_cast<float>(c.lightness), static_cast<float>(c.chroma * std::cos(hue)),
                    static_cast<float>(c.chroma * std::sin(hue))});
}

/// True if the colour comes back as it went: nothing of it was clipped.
bool isInGamut(const OkLch& c) {
  const OkLab back = toOkLab(linearOf(c));
  const double hue = radians(c.hue_deg);
  constexpr double kSame = 0.004;
  return std::abs(static_cast<double>(back.lightness) - c.lightness) < kSame &&
         std::abs(static_cast<double>(back.a) - c.chroma * std::cos(hue)) < kSame &&
         std::abs(static_cast<double>(back.b) - c.chroma * std::sin(hue)) < kSame;
}

}  // namespace

OkLch toOkLch(Srgb8 colour) {
  return toOkLch(toLinear(colour));
}

OkLch toOkLch(Rgb colour) {
  const OkLab lab = toOkLab(colour);
  const double hue = degrees(std::atan2(static_cast<double>(lab.b), static_cast<double>(lab.a)));
  return {static_cast<double>(lab.lightness),
          std::hypot(static_cast<double>(lab.a), static_cast<double>(lab.b)), hue < 0 ? hue + 360 : hue};
}

Rgb linearInGamut(OkLch colour) {
  if (!isInGamut(colour)) {
    double low = 0;
    double high = colour.chroma;
    constexpr int kSteps = 16;
    for (int i = 0; i < kSteps; ++i) {
      colour.chroma = (low + high) / 2;
      (isInGamut(colour) ? low : high) = colour.chroma;
    }
    colour.chroma = low;
  }
  return linearOf(colour);
}

Srgb8 fromOkLch(OkLch colour) {
  return toSrgb8(linearInGamut(colour));
}

Palette straightened(const Palette& palette) {
  constexpr int kBetween = 8;
  Palette straight = palette;
  if (palette.path == PalettePath::Straight) return straight;
  straight.path = PalettePath::Straight;
  straight.stops.clear();
  for (std::size_t i = 0; i < palette.stops.size(); ++i) {
    straight.stops.push_back(palette.stops[i]);
    if (i + 1 == palette.stops.size()) break;
    const double from = palette.stops[i].at, to = palette.stops[i + 1].at;
    for (int k = 1; k < kBetween && to > from; ++k) {
      const double at = from + (to - from) * k / kBetween;
      straight.stops.push_back({at, toSrgb8(colourAt(palette, at))});
    }
  }
  return straight;
}

std::vector<ColourStop> harmonyOf(Srgb8 colour, Harmony harmony) {
  const OkLch own = toOkLch(colour);
  std::vector<Srgb8> colours;
  if (harmony == Harmony::OneHue) {
    for (const double lightness : {0.2, 0.4, 0.6, 0.78, 0.93})
      colours.push_back(fromOkLch({lightness, own.chroma, own.hue_deg}));
    return spreadOut(colours);
  }
  const auto turns = [&]() -> std::vector<double> {
    switch (harmony) {
      case Harmony::Neighbours:
        return {-50, -25, 0, 25, 50};
      case Harmony::Opposites:
        return {0, 20, 180, 200};
      case Harmony::Triad:
        return {0, 120, 240, 360};
      default:
        return {0, 90, 180, 270};
    }
  }();
  for (const double turn : turns)
    colours.push_back(fromOkLch({own.lightness, own.chroma, std::fmod(own.hue_deg + turn + 360, 360)}));
  return spreadOut(colours);
}

std::vector<ColourStop> randomStops(double hue_deg, double spread_deg, int count, std::uint32_t seed) {
  std::vector<Srgb8> colours;
  for (int i = 0; i < count; ++i) {
    const auto luck = [&](std::uint64_t what) {
      return static_cast<double>(chance(seed, static_cast<std::uint64_t>(i), what));
    };
    colours.push_back(fromOkLch({0.45 + 0.45 * luck(1), 0.1 + 0.2 * luck(2),
                                 std::fmod(hue_deg + spread_deg * (luck(3) - 0.5) + 720, 360)}));
  }
  return spreadOut(colours);
}

std::vector<ColourStop> stopsOfPicture(const std::vector<std::uint8_t>& rgba, int count) {
  std::vector<Srgb8> dots;
  for (std::size_t i = 0; i + 3 < rgba.size(); i += 4)
    if (rgba[i + 3] > 127) dots.push_back({rgba[i], rgba[i + 1], rgba[i + 2]});
  if (dots.empty() || count < 1) return {};
  const auto channel = [](const Srgb8& c, int which) { return which == 0 ? c.r : which == 1 ? c.g : c.b; };
  std::vector<std::span<Srgb8>> boxes = {dots};
  while (std::ssize(boxes) < count) {
    // The box whose colours lie furthest apart is cut in its middle.
    std::size_t widest = 0;
    int axis = 0;
    int most = -1;
    for (std::size_t b = 0; b < boxes.size(); ++b)
      for (int c = 0; c < 3 && boxes[b].size() > 1; ++c) {
        const auto [low, high] = std::minmax_element(
            boxes[b].begin(), boxes[b].end(),
            [&](const Srgb8& x, const Srgb8& y) { return channel(x, c) < channel(y, c); });
        const int width = channel(*high, c) - channel(*low, c);
        if (width > most) most = width, widest = b, axis = c;
      }
    if (most <= 0) break;
    const auto box = boxes[widest];
    const auto [low, high] = std::minmax_element(box.begin(), box.end(), [&](const Srgb8& x, const Srgb8& y) {
      return channel(x, axis) < channel(y, axis);
    });
    const int middle = (channel(*low, axis) + channel(*high, axis)) / 2;
    const auto second =
        std::partition(box.begin(), box.end(), [&](const Srgb8& c) { return channel(c, axis) <= middle; });
    const auto left = static_cast<std::size_t>(second - box.begin());
    boxes[widest] = box.first(left);
    boxes.push_back(box.subspan(left));
  }
  std::vector<Srgb8> colours;
  for (const auto& box : boxes) {
    long r = 0, g = 0, b = 0;
    for (const Srgb8& c : box) r += c.r, g += c.g, b += c.b;
    const auto n = static_cast<long>(box.size());
    colours.push_back({static_cast<std::uint8_t>(r / n), static_cast<std::uint8_t>(g / n),
                       static_cast<std::uint8_t>(b / n)});
  }
  std::sort(colours.begin(), colours.end(),
            [](const Srgb8& x, const Srgb8& y) { return toOkLch(x).lightness < toOkLch(y).lightness; });
  return spreadOut(colours);
}

}  // namespace chispa
