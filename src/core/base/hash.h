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

/// 24 bits of a hash, from bit `shift` on, as a number in [0, 1).
constexpr float unitOf(std::uint64_t hash, int shift = 40) {
  return static_cast<float>(hash >> shift & 0xffffff) * 0x1p-24f;
}

/// A number in [0, 1) that depends only on its arguments: what effects use for chance.
constexpr float chance(std::uint64_t seed, std::uint64_t a, std::uint64_t b = 0) {
  return unitOf(mixBits(seed ^ mixBits(a ^ mixBits(b))));
}

}  // namespace chispa
