// SPDX-License-Identifier: GPL-3.0-or-later
// Palettes and gradients of the GIMP.
#include <algorithm>
#include <cmath>
#include <sstream>

#include "core/colour/colourtext.h"
#include "core/files/palettereaders.h"

namespace chispa::palettes {
namespace {

/// Points of a segment whose colours do not run straight.
constexpr int kPointsOfBend = 8;

struct Colour {
  double r = 0, g = 0, b = 0;
  Srgb8 bytes() const { return {byteOf(r), byteOf(g), byteOf(b)}; }
};

struct Hsv {
  double hue = 0, saturation = 0, value = 0;
};

Hsv toHsv(const Colour& c) {
  const double most = std::max({c.r, c.g, c.b}), least = std::min({c.r, c.g, c.b}), range = most - least;
  if (range <= 0) return {0, 0, most};
  const double sixth = most == c.r   ? (c.g - c.b) / range
                       : most == c.g ? 2 + (c.b - c.r) / range
                                     : 4 + (c.r - c.g) / range;
  return {std::fmod(sixth * 60 + 360, 360), range / most, most};
}

enum Blending { Linear, Curved, Sine, RisingSphere, FallingSphere, Step };
enum Space { InRgb, HueUp, HueDown };

/// A segment of a gradient: from left to right, with the mean of both colours at its middle.
struct Segment {
  double left = 0, middle = 0, right = 0;
  Colour from, to;
  int blending = Linear;
  int space = InRgb;

  /// How much of the right colour there is at `u`, 0–1 of the segment.
  double share(double u) const {
    const double m = right > left ? std::clamp((middle - left) / (right - left), 1e-6, 1 - 1e-6) : 0.5;
    const double straight = u <= m ? 0.5 * u / m : 0.5 + 0.5 * (u - m) / (1 - m);
    switch (blending) {
      case Curved:
        return std::pow(u, std::log(0.5) / std::log(m));
      case Sine:
        return (std::sin(-3.14159265358979 / 2 + 3.14159265358979 * straight) + 1) / 2;
      case RisingSphere:
        return std::sqrt(1 - (straight - 1) * (straight - 1));
      case FallingSphere:
        return 1 - std::sqrt(1 - straight * straight);
      case Step:
        return u >= m ? 1 : 0;
      default:
        return straight;
    }
  }

  Srgb8 at(double u) const {
    const double k = share(u);
    if (space == InRgb)
      return Colour{from.r + (to.r - from.r) * k, from.g + (to.g - from.g) * k, from.b + (to.b - from.b) * k}
          .bytes();
    const Hsv a = toHsv(from), b = toHsv(to);
    double way = b.hue - a.hue;
    if (space == HueUp && way < 0) way += 360;
    if (space == HueDown && way > 0) way -= 360;
    return fromHsv(a.hue + way * k, a.saturation + (b.saturation - a.saturation) * k,
                   a.value + (b.value - a.value) * k);
  }

  void addTo(Draft& draft) const {
    draft.add(left, at(0));
    if (blending == Step) {
      draft.add(middle, from.bytes());
      draft.add(middle, to.bytes());
    } else if (blending != Linear || space != InRgb) {
      for (int i = 1; i < kPointsOfBend; ++i)
        draft.add(left + (right - left) * i / kPointsOfBend, at(static_cast<double>(i) / kPointsOfBend));
    } else if (std::abs(middle - (left + right) / 2) > 1e-4) {
      draft.add(middle, at((middle - left) / std::max(1e-9, right - left)));
    }
    draft.add(right, at(1));
  }
};

bool takeName(const std::string& line, Draft& draft) {
  if (!line.starts_with("Name:")) return false;
  draft.name = std::string(trimmed(std::string_view(line).substr(5)));
  return true;
}

}  // namespace

void readGpl(const std::string& text, Draft& draft) {
  std::istringstream in(text);
  draft.isEven = true;
  for (std::string line; std::getline(in, line);) {
    if (takeName(line, draft)) continue;
    const auto n = leadingNumbers(line);
    if (n.size() >= 3)
      draft.stops.push_back({0, {byteOf(n[0] / 255), byteOf(n[1] / 255), byteOf(n[2] / 255)}});
  }
}

void readGgr(const std::string& text, Draft& draft) {
  std::istringstream in(text);
  for (std::string line; std::getline(in, line);) {
    if (takeName(line, draft)) continue;
    const auto n = leadingNumbers(line);
    if (n.size() < 11) continue;
    const auto word = [&](std::size_t i) {
      return n.size() > i ? static_cast<int>(std::clamp(n[i], 0.0, 9.0)) : 0;
    };
    Segment{n[0], n[1], n[2], {n[3], n[4], n[5]}, {n[7], n[8], n[9]}, word(11), word(12)}.addTo(draft);
  }
}

}  // namespace chispa::palettes
