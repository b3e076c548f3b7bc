// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <cmath>

#include "core/base/hash.h"

namespace chispa {

/// The part of `x` behind the point, 0 ≤ result < 1 for negative numbers too.
inline float fraction(double x) {
  const auto f = static_cast<float>(x - std::floor(x));
  return f < 1.f ? f : 0.f;
}

/// 0 below `from`, 1 above `to`, an even S between.
inline float easeBetween(float from, float to, float x) {
  if (to <= from) return x >= to ? 1.f : 0.f;
  const float u = std::fmin(std::fmax((x - from) / (to - from), 0.f), 1.f);
  return u * u * (3 - 2 * u);
}

/// Smooth noise 0–1 over two coordinates, from chance at whole numbers (value noise).
inline float noise(std::uint64_t seed, double x, double y) {
  const double fx = std::floor(x);
  const double fy = std::floor(y);
  const auto corner = [&](int dx, int dy) {
    return chance(seed, static_cast<std::uint64_t>(static_cast<std::int64_t>(fx) + dx),
                  static_cast<std::uint64_t>(static_cast<std::int64_t>(fy) + dy));
  };
  const float u = easeBetween(0, 1, static_cast<float>(x - fx));
  const float v = easeBetween(0, 1, static_cast<float>(y - fy));
  const float low = corner(0, 0) + (corner(1, 0) - corner(0, 0)) * u;
  const float high = corner(0, 1) + (corner(1, 1) - corner(0, 1)) * u;
  return low + (high - low) * v;
}

}  // namespace chispa
