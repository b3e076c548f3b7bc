// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/colour/difference.h"

#include <cmath>

#include "core/base/vec3.h"

namespace chispa {
namespace {

/// Hue 0–360°, 0 where there is none.
double hueOf(double a, double b) {
  if (a == 0 && b == 0) return 0;
  const double hue = degrees(std::atan2(b, a));
  return hue < 0 ? hue + 360 : hue;
}

double power7(double x) {
  return std::pow(x, 7);
}

/// √(C⁷ / (C⁷ + 25⁷)).
double chromaShare(double chroma) {
  return std::sqrt(power7(chroma) / (power7(chroma) + power7(25)));
}

double cosineOfDegrees(double angle) {
  return std::cos(radians(angle));
}

}  // namespace

CieLab toCieLab(Rgb colour) {
  const auto r = static_cast<double>(colour.r);
  const auto g = static_cast<double>(colour.g);
  const auto b = static_cast<double>(colour.b);
  // Linear sRGB to XYZ as shares of the white (IEC 61966-2-1).
  const double x = (0.4124564 * r + 0.3575761 * g + 0.1804375 * b) / 0.95047;
  const double y = 0.2126729 * r + 0.7151522 * g + 0.0721750 * b;
  const double z = (0.0193339 * r + 0.1191920 * g + 0.9503041 * b) / 1.08883;
  const auto bent = [](double t) {
    constexpr double kLimit = 216.0 / 24389;
    return t > kLimit ? std::cbrt(t) : (24389.0 / 27 * t + 16) / 116;
  };
  return {116 * bent(y) - 16, 500 * (bent(x) - bent(y)), 200 * (bent(y) - bent(z))};
}

double deltaE2000(const CieLab& one, const CieLab& other) {
  const double meanOwn = (std::hypot(one.a, one.b) + std::hypot(other.a, other.b)) / 2;
  const double stretch = 1 + 0.5 * (1 - chromaShare(meanOwn));
  const double a1 = one.a * stretch;
  const double a2 = other.a * stretch;
  const double chroma1 = std::hypot(a1, one.b);
  const double chroma2 = std::hypot(a2, other.b);
  const double hue1 = hueOf(a1, one.b);
  const double hue2 = hueOf(a2, other.b);
  const bool isGrey = chroma1 * chroma2 == 0;

  double hueStep = isGrey ? 0 : hue2 - hue1;
  if (hueStep > 180) hueStep -= 360;
  if (hueStep < -180) hueStep += 360;
  const double lightnessStep = other.lightness - one.lightness;
  const double chromaStep = chroma2 - chroma1;
  const double hueLength = 2 * std::sqrt(chroma1 * chroma2) * std::sin(radians(hueStep / 2));

  const double lightness = (one.lightness + other.lightness) / 2;
  const double chroma = (chroma1 + chroma2) / 2;
  double hue = hue1 + hue2;
  if (!isGrey) {
    hue /= 2;
    if (std::abs(hue1 - hue2) > 180) hue += hue < 180 ? 180 : -180;
  }
  const double t = 1 - 0.17 * cosineOfDegrees(hue - 30) + 0.24 * cosineOfDegrees(2 * hue) +
                   0.32 * cosineOfDegrees(3 * hue + 6) - 0.20 * cosineOfDegrees(4 * hue - 63);
  const double off = (lightness - 50) * (lightness - 50);
  const double weightLightness = 1 + 0.015 * off / std::sqrt(20 + off);
  const double weightChroma = 1 + 0.045 * chroma;
  const double weightHue = 1 + 0.015 * chroma * t;
  const double turn = 30 * std::exp(-std::pow((hue - 275) / 25, 2));
  const double rotation = -2 * chromaShare(chroma) * std::sin(radians(2 * turn));

  const double l = lightnessStep / weightLightness;
  const double c = chromaStep / weightChroma;
  const double h = hueLength / weightHue;
  return std::sqrt(l * l + c * c + h * h + rotation * c * h);
}

}  // namespace chispa
