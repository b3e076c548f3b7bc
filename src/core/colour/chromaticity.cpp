// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/colour/chromaticity.h"

#include <algorithm>
#include <cmath>
#include <locale>
#include <sstream>
#include <string>
#include <vector>

namespace chispa {
namespace {

using Xyz = std::array<double, 3>;

double cubic(double t, double a, double b, double c, double d) {
  return ((a * t + b) * t + c) * t + d;
}

Chromaticity planckian(double kelvin) {
  const double inverse = 1000 / kelvin;
  const double x = kelvin < 4000 ? cubic(inverse, -0.2661239, -0.2343589, 0.8776956, 0.179910)
                                 : cubic(inverse, -3.0258469, 2.1070379, 0.2226347, 0.240390);
  if (kelvin < 2222) return {x, cubic(x, -1.1063814, -1.34811020, 2.18555832, -0.20219683)};
  if (kelvin < 4000) return {x, cubic(x, -0.9549476, -1.37418593, 2.09137015, -0.16748867)};
  return {x, cubic(x, 3.0817580, -5.87338670, 3.75112997, -0.37001483)};
}

Chromaticity daylight(double kelvin) {
  const double inverse = 1000 / kelvin;
  const double x = kelvin <= 7000 ? cubic(inverse, -4.6070, 2.9678, 0.09911, 0.244063)
                                  : cubic(inverse, -2.0064, 1.9018, 0.24748, 0.237040);
  return {x, (-3 * x + 2.87) * x - 0.275};
}

/// A bell with two flanks.
double lobe(double at, double height, double middle, double left, double right) {
  const double off = (at - middle) / (at < middle ? left : right);
  return height * std::exp(-0.5 * off * off);
}

/// Beyond these the fits of the observer leave the shape of the spectral locus.
constexpr double kFirst_nm = 435;
constexpr double kLast_nm = 648;

/// The bell-shaped spectrum about `peak_nm`.
Chromaticity bell(double peak_nm, double width_nm) {
  // A bell is 2.3548 deviations wide at half of its height.
  const double deviation = width_nm / 2.3548;
  Xyz sum{};
  for (double nm = 360; nm <= 830; nm += 1) {
    const double off = (nm - peak_nm) / deviation;
    const double light = std::exp(-0.5 * off * off);
    const Xyz seen = observer(nm);
    for (std::size_t i = 0; i < 3; ++i) sum[i] += light * seen[i];
  }
  return chromaticityOf(sum);
}

constexpr double kLocusStep_nm = 0.1;

/// The direction in which light of one wavelength lies as seen from white, by steps of the wavelength.
std::vector<double> locusDirections() {
  std::vector<double> directions;
  for (double nm = kFirst_nm; nm <= kLast_nm; nm += kLocusStep_nm) {
    const Chromaticity pure = chromaticityOf(observer(nm));
    directions.push_back(std::atan2(pure.y - kD65.y, pure.x - kD65.x));
  }
  return directions;
}

}  // namespace

Chromaticity chromaticityOfTemperature(double kelvin) {
  const double t = std::clamp(kelvin, 1667.0, 25'000.0);
  return t < 5000 ? planckian(t) : daylight(t);
}

Xyz xyzOf(Chromaticity at, double luminance) {
  return {at.x / at.y * luminance, luminance, (1 - at.x - at.y) / at.y * luminance};
}

Chromaticity chromaticityOf(const Xyz& xyz) {
  const double sum = xyz[0] + xyz[1] + xyz[2];
  return sum > 0 ? Chromaticity{xyz[0] / sum, xyz[1] / sum} : kD65;
}

Rgb srgbOfXyz(const Xyz& xyz) {
  const auto [x, y, z] = xyz;
  return {static_cast<float>(3.2406 * x - 1.5372 * y - 0.4986 * z),
          static_cast<float>(-0.9689 * x + 1.8758 * y + 0.0415 * z),
          static_cast<float>(0.0557 * x - 0.2040 * y + 1.0570 * z)};
}

Xyz xyzOfSrgb(Rgb colour) {
  const double r = static_cast<double>(colour.r), g = static_cast<double>(colour.g),
               b = static_cast<double>(colour.b);
  return {0.4124 * r + 0.3576 * g + 0.1805 * b, 0.2126 * r + 0.7152 * g + 0.0722 * b,
          0.0193 * r + 0.1192 * g + 0.9505 * b};
}

Xyz observer(double nm) {
  return {lobe(nm, 1.056, 599.8, 37.9, 31.0) + lobe(nm, 0.362, 442.0, 16.0, 26.7) +
              lobe(nm, -0.065, 501.1, 20.4, 26.2),
          lobe(nm, 0.821, 568.8, 46.9, 40.5) + lobe(nm, 0.286, 530.9, 16.3, 31.1),
          lobe(nm, 1.217, 437.0, 11.8, 36.0) + lobe(nm, 0.681, 459.0, 26.0, 13.8)};
}

std::optional<double> dominantWavelength(Chromaticity at) {
  const double dx = at.x - kD65.x, dy = at.y - kD65.y;
  constexpr double kWhite = 0.005;
  if (std::hypot(dx, dy) < kWhite) return std::nullopt;
  const double wanted = std::atan2(dy, dx);
  double best_nm = 0, nearest = 10;
  static const std::vector<double> directions = locusDirections();
  for (std::size_t i = 0; i < directions.size(); ++i) {
    const double off = std::abs(std::remainder(directions[i] - wanted, 2 * M_PI));
    if (off < nearest) nearest = off, best_nm = kFirst_nm + static_cast<double>(i) * kLocusStep_nm;
  }
  constexpr double kPurple = 0.02;
  return nearest < kPurple ? std::optional(std::round(best_nm * 10) / 10) : std::nullopt;
}

Chromaticity chromaticityOfLed(double dominant_nm, double width_nm) {
  const double wanted = std::clamp(dominant_nm, 440.0, 640.0);
  const double width = std::clamp(width_nm, 1.0, 100.0);
  double low = wanted - width, high = wanted + 1.5 * width;
  for (int i = 0; i < 12; ++i) {
    const double middle = (low + high) / 2;
    const auto got = dominantWavelength(bell(middle, width));
    (got.value_or(middle < 500 ? kFirst_nm : kLast_nm) < wanted ? low : high) = middle;
  }
  return bell((low + high) / 2, width);
}

std::optional<Chromaticity> readChromaticity(std::string_view words) {
  std::istringstream in{std::string(words)};
  in.imbue(std::locale::classic());
  double first = 0;
  if (!(in >> first)) return std::nullopt;
  in >> std::ws;
  if (in.peek() == ',') in.get();
  const auto place = in.tellg();
  if (double y = 0; in >> y) {
    const bool isPlace = first >= 0 && y > 0.001 && first + y <= 1 && (in >> std::ws).eof();
    return isPlace ? std::optional(Chromaticity{first, y}) : std::nullopt;
  }
  in.clear();
  in.seekg(place);
  std::string unit, more;
  in >> unit >> more;
  if (!more.empty()) return std::nullopt;
  if (unit == "nm" && first >= 440 && first <= 640) {
    // Usual widths at half of the peak of blue, green and red chips.
    const double width_nm = first < 490 ? 22 : first < 580 ? 34 : 18;
    return chromaticityOfLed(first, width_nm);
  }
  if (unit == "K" && first >= 1'667 && first <= 25'000) return chromaticityOfTemperature(first);
  return std::nullopt;
}

}  // namespace chispa
