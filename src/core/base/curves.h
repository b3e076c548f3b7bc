// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <algorithm>
#include <bit>
#include <cmath>

#include "core/base/hash.h"

namespace chispa {

// All of these are plain arithmetic without branches, so that loops over cells compute several at once; the
// library's own functions would be called for each cell by itself.

/// The largest number below 1.
inline constexpr float kJustBelowOne = 0x1.fffffep-1f;

/// The part of `x` behind the point, 0 ≤ result < 1 for negative numbers too. It belongs to std::floor(x):
/// just below a whole number it is just below 1, not 0, so that a turn's number and the place in it never
/// speak of two turns.
inline float fraction(double x) {
  const auto f = static_cast<float>(x - std::floor(x));
  return f < 1.f ? f : kJustBelowOne;
}
inline float fraction(float x) {
  const float f = x - std::floor(x);
  return f < 1.f ? f : kJustBelowOne;
}

/// The lower and the higher of two; unlike std::fmin and std::fmax they leave out what is no number only in
/// the first place.
inline float lower(float a, float b) {
  return a < b ? a : b;
}
inline float higher(float a, float b) {
  return a > b ? a : b;
}
/// The nearer of two bounds if `x` is beyond them.
inline float within(float low, float high, float x) {
  return lower(higher(x, low), high);
}

/// 0 below `from`, 1 above `to`, an even S between.
inline float easeBetween(float from, float to, float x) {
  const float width = to - from;
  const float u = width > 0 ? within(0, 1, (x - from) / width) : (x >= to ? 1.f : 0.f);
  return u * u * (3 - 2 * u);
}

/// The length of (x, y).
inline float lengthOf(float x, float y) {
  return std::sqrt(x * x + y * y);
}

/// Cosine of `turns` × 2π, within 4e-6: Taylor's series about a quarter turn.
inline float cosineOfTurns(float turns) {
  const float u = turns - std::floor(turns + 0.5f);
  const float w = 0.25f - std::abs(u);
  const float z = w * w;
  return w *
         (6.28318531f +
          z * (-41.3417022f + z * (81.6052493f + z * (-76.7058597f + z * (42.0586940f - z * 15.0946426f)))));
}
/// Sine of `turns` × 2π, as exact.
inline float sineOfTurns(float turns) {
  return cosineOfTurns(turns - 0.25f);
}

/// 2 to the power of `x`, within 2e-7 of its size; x is held to ±126.
inline float exponential2(float x) {
  const float held = within(-126, 126, x);
  // Taylor's series half a step to either side of a whole number.
  const float whole = std::floor(held + 0.5f);
  const float f = held - whole;
  const float part =
      1 + f * (0.693147181f +
               f * (0.240226507f +
                    f * (0.0555041087f + f * (0.00961812911f + f * (0.00133335581f + f * 0.000154035304f)))));
  return part * std::bit_cast<float>((static_cast<std::int32_t>(whole) + 127) << 23);
}
/// e to the power of `x`.
inline float exponential(float x) {
  return exponential2(x * 1.44269504f);
}

/// Logarithm of `x` to base 2, within 1e-6; of what is not above 0, that of the least normal number.
inline float logarithm2(float x) {
  constexpr float kLeast = 1.17549435e-38f;
  constexpr float kRoot = 1.41421356f;
  const auto bits = std::bit_cast<std::int32_t>(x > kLeast ? x : kLeast);
  const float mantissa = std::bit_cast<float>((bits & 0x7fffff) | 0x3f800000);
  const bool isHigh = mantissa > kRoot;
  const float m = isHigh ? mantissa * 0.5f : mantissa;
  const auto exponent = static_cast<float>((bits >> 23) - 127) + (isHigh ? 1.f : 0.f);
  const float s = (m - 1) / (m + 1);
  const float z = s * s;
  return exponent +
         s * (2.88539008f + z * (0.961796694f + z * (0.577078016f + z * (0.412198583f + z * 0.320598898f))));
}

/// `base` ≥ 0 to the power of `exponent` > 0.
inline float powerOf(float base, float exponent) {
  return base > 0 ? exponential2(exponent * logarithm2(base)) : 0.f;
}

/// Smooth noise 0–1 over two coordinates, from chance at whole numbers (value noise). Beyond ±2e9 it stands
/// still.
inline float noise(std::uint64_t seed, double x, double y) {
  constexpr double kMax = 2e9;
  const double hx = x > -kMax ? (x < kMax ? x : kMax) : -kMax;
  const double hy = y > -kMax ? (y < kMax ? y : kMax) : -kMax;
  const double fx = std::floor(hx);
  const double fy = std::floor(hy);
  const auto column = static_cast<std::uint32_t>(static_cast<std::int32_t>(fx)) * kGoldenBits32;
  const auto row = static_cast<std::uint32_t>(static_cast<std::int32_t>(fy)) * 0x85ebca6bu +
                   static_cast<std::uint32_t>(seed ^ seed >> 32) * 0xc2b2ae35u;
  const float u = easeBetween(0, 1, static_cast<float>(hx - fx));
  const float v = easeBetween(0, 1, static_cast<float>(hy - fy));
  const float a = unitOf32(mixBits32(column ^ row));
  const float b = unitOf32(mixBits32((column + kGoldenBits32) ^ row));
  const float c = unitOf32(mixBits32(column ^ (row + 0x85ebca6bu)));
  const float d = unitOf32(mixBits32((column + kGoldenBits32) ^ (row + 0x85ebca6bu)));
  const float low = a + (b - a) * u;
  const float high = c + (d - c) * u;
  return low + (high - low) * v;
}

}  // namespace chispa
