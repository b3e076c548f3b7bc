// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/base/curves.h"
#include "core/colour/evenness.h"

namespace chispa {

// L* of CIE 1976 (ISO/CIE 11664-4) as a share of 100, and back: 0 at 0, 1 at 1, going on above. Real-time
// safe; plain arithmetic, for loops over many.

/// Where L* passes from a straight line to a cube root, as light and as lightness, and how steep the line is.
inline constexpr float kLightnessBendLight = 216.f / 24389;
inline constexpr float kLightnessBend = 0.08f;
inline constexpr float kLightnessSlope = 24389.f / 2700;

/// Lightness of light (relative luminance) 0–1.
inline float lightnessOf(float light) {
  const float root = 1.16f * powerOf(light, 1.f / 3) - 0.16f;
  return light > kLightnessBendLight ? root : light * kLightnessSlope;
}

/// The light of that lightness.
inline float lightOfLightness(float lightness) {
  const float root = (lightness + 0.16f) / 1.16f;
  return lightness > kLightnessBend ? root * root * root : lightness / kLightnessSlope;
}

/// The light, 0–1, of a level 0–1 whose steps are even in that.
inline float lightOfLevel(Evenness evenness, float level) {
  return evenness == Evenness::InLight ? level : lightOfLightness(level);
}

}  // namespace chispa
