// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/show/whitemix.h"

#include <algorithm>
#include <cmath>

namespace chispa {
namespace {

float luminanceOf(Rgb colour) {
  return 0.2126f * colour.r + 0.7152f * colour.g + 0.0722f * colour.b;
}

std::array<float, 2> uvOf(double x, double y) {
  const double all = -2 * x + 12 * y + 3;
  return {static_cast<float>(4 * x / all), static_cast<float>(9 * y / all)};
}

}  // namespace

WhiteMix::WhiteMix(const ChipColours& chips, bool hasWhite, bool hasAmber) noexcept {
  const auto chipOf = [](Chromaticity at, double light) {
    const auto [u, v] = uvOf(at.x, at.y);
    return Chip{u, v, static_cast<float>(light), srgbOfXyz(xyzOf(at, light))};
  };
  if (hasWhite) white_ = chipOf(chips.white, chips.whiteLight);
  if (hasAmber) amber_ = chipOf(chips.amber, chips.amberLight);
  reference_ = hasWhite && hasAmber ? std::min(white_.light, amber_.light) : white_.light + amber_.light;
}

WhiteMix WhiteMix::plain(bool hasWhite, bool hasAmber) noexcept {
  ChipColours chips;
  if (hasWhite && hasAmber) {
    chips.white = chromaticityOfTemperature(2'700);
    chips.amber = chromaticityOfTemperature(6'500);
  }
  return {chips, hasWhite, hasAmber};
}

std::array<float, 2> WhiteMix::light(Rgb colour, bool isBrightest) const noexcept {
  const float wanted = std::clamp(luminanceOf(colour), 0.f, 1.f);
  if (amber_.light <= 0) return {wanted, 0};
  if (white_.light <= 0) return {0, wanted};
  const auto xyz = xyzOfSrgb(colour);
  const double sum = xyz[0] + xyz[1] + xyz[2];
  if (sum <= 0) return {0, 0};
  const auto [u, v] = uvOf(xyz[0] / sum, xyz[1] / sum);
  const float du = amber_.u - white_.u, dv = amber_.v - white_.v;
  const float length = du * du + dv * dv;
  const float t =
      length > 0 ? std::clamp(((u - white_.u) * du + (v - white_.v) * dv) / length, 0.f, 1.f) : 0.f;
  // On that line mixtures lie by their luminances over v′.
  const float ofWhite = (1 - t) * white_.v, ofAmber = t * amber_.v;
  const float all = ofWhite + ofAmber;
  const float whiteFull = ofWhite / all / white_.light, amberFull = ofAmber / all / amber_.light;
  // Luminance that leaves neither chip above its full light.
  const float most = 1 / std::max(whiteFull, amberFull);
  const float luminance = wanted * (isBrightest ? most : std::min(most, reference_));
  return {luminance * whiteFull, luminance * amberFull};
}

Rgb WhiteMix::colourOf(float white, float amber) const noexcept {
  const auto sum = [&](float ofWhite, float ofAmber) {
    return (white * ofWhite + amber * ofAmber) / reference_;
  };
  return {sum(white_.colour.r, amber_.colour.r), sum(white_.colour.g, amber_.colour.g),
          sum(white_.colour.b, amber_.colour.b)};
}

}  // namespace chispa
