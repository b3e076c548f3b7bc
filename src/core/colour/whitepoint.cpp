// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/colour/whitepoint.h"

#include <algorithm>
#include <cmath>

namespace chispa {
namespace {

struct Chromaticity {
  double x;
  double y;
};

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

}  // namespace

Rgb whiteOfTemperature(double kelvin) {
  const double t = std::clamp(kelvin, 1667.0, 25'000.0);
  const Chromaticity at = t < 5000 ? planckian(t) : daylight(t);
  const double x = at.x / at.y;
  const double z = (1 - at.x - at.y) / at.y;
  // IEC 61966-2-1: linear sRGB from XYZ with Y = 1.
  const double r = 3.2406 * x - 1.5372 - 0.4986 * z;
  const double g = -0.9689 * x + 1.8758 + 0.0415 * z;
  const double b = 0.0557 * x - 0.2040 + 1.0570 * z;
  const double most = std::max({r, g, b});
  const auto share = [most](double part) { return static_cast<float>(std::max(0.02, part / most)); };
  return {share(r), share(g), share(b)};
}

std::optional<double> temperatureOfWhite(Rgb white) {
  // Green and blue grow, and then red falls, with the temperature: it is searched by halves.
  const auto coldness = [](Rgb colour) { return colour.g + colour.b - colour.r; };
  double low = 1'667, high = 25'000;
  for (int i = 0; i < 60; ++i) {
    const double middle = (low + high) / 2;
    (coldness(whiteOfTemperature(middle)) < coldness(white) ? low : high) = middle;
  }
  const Rgb made = whiteOfTemperature(low);
  constexpr float kNear = 0.02f;
  const bool isNear = std::abs(made.r - white.r) <= kNear && std::abs(made.g - white.g) <= kNear &&
                      std::abs(made.b - white.b) <= kNear;
  return isNear ? std::optional(low) : std::nullopt;
}

double lightLeft(Rgb white) {
  return 0.2126 * static_cast<double>(white.r) + 0.7152 * static_cast<double>(white.g) +
         0.0722 * static_cast<double>(white.b);
}

}  // namespace chispa
