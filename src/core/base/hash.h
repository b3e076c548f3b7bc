// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <cstdint>

namespace chispa {

/// Mixes 64 bits so that neighbours look unrelated (the finaliser of SplitMix64, Steele et al. 2014).
constexpr std::uint64_t mixBits(std::uint64_t x) {
  x += 0x9e3779b97f4a7c15ULL;
  x = (x ^ (x >> 30)) * 0xbf58476d1ce4e5b9ULL;
  x = (x ^ (x >> 27)) * 0x94d049bb133111ebULL;
  return x ^ (x >> 31);
}

/// What neighbours' numbers are multiplied by to lie far apart: 2³² over the golden ratio.
inline constexpr std::uint32_t kGoldenBits32 = 0x9e3779b1U;

/// The same for 32 bits, which vectors multiply eight at a time (the two-round mixer of C. Wellons, 2018).
constexpr std::uint32_t mixBits32(std::uint32_t x) {
  x = (x ^ (x >> 16)) * 0x7feb352dU;
  x = (x ^ (x >> 15)) * 0x846ca68bU;
  return x ^ (x >> 16);
}

/// The upper 24 bits of a hash as a number in [0, 1).
constexpr float unitOf32(std::uint32_t hash) {
  return static_cast<float>(static_cast<std::int32_t>(hash >> 8)) * 0x1p-24f;
}

/// 24 bits of a hash, from bit `shift` on, as a number in [0, 1).
constexpr float unitOf(std::uint64_t hash, int shift = 40) {
  return static_cast<float>(hash >> shift & 0xffffff) * 0x1p-24f;
}

/// A number in [0, 1) that depends only on its arguments: what effects use for chance.
constexpr float chance(std::uint64_t seed, std::uint64_t a, std::uint64_t b = 0) {
  return unitOf(mixBits(seed ^ mixBits(a ^ mixBits(b))));
}

}  // namespace chispa
