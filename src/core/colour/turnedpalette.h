// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/colour/palette.h"

namespace chispa {

/// A palette as a clip sees it: as it is, or turned by a share of itself; then its end joins its beginning.
class TurnedPalette {
 public:
  TurnedPalette(const PaletteTable& table) : table_(table) {}
  /// Turned by `shift` palettes.
  TurnedPalette(const PaletteTable& table, double shift)
      : table_(table), isTurned_(true), shift_(static_cast<float>(shift - std::floor(shift))) {}

  Rgb clamped(float u) const { return isTurned_ ? table_.wrapped(held(u) + shift_) : table_.clamped(u); }
  Rgb wrapped(float u) const { return table_.wrapped(isTurned_ ? u + shift_ : u); }

  /// As those of PaletteTable.
  void clamped(const float* places, const float* strengths, std::size_t count, float* r, float* g,
               float* b) const noexcept {
    if (!isTurned_) return table_.clamped(places, strengths, count, r, g, b);
    turned(places, strengths, count, r, g, b, held);
  }
  void wrapped(const float* places, const float* strengths, std::size_t count, float* r, float* g,
               float* b) const noexcept {
    if (!isTurned_) return table_.wrapped(places, strengths, count, r, g, b);
    turned(places, strengths, count, r, g, b, [](float u) { return u; });
  }

 private:
  static float held(float u) { return std::min(1.f, std::max(0.f, u)); }

  /// Block by block, so that no memory is needed.
  template <class PlaceOf>
  void turned(const float* places, const float* strengths, std::size_t count, float* r, float* g, float* b,
              PlaceOf placeOf) const noexcept {
    constexpr std::size_t kBlock = 256;
    std::array<float, kBlock> moved;
    for (std::size_t first = 0; first < count; first += kBlock) {
      const std::size_t size = std::min(kBlock, count - first);
      for (std::size_t i = 0; i < size; ++i) moved[i] = placeOf(places[first + i]) + shift_;
      table_.wrapped(moved.data(), strengths + first, size, r + first, g + first, b + first);
    }
  }

  const PaletteTable& table_;
  bool isTurned_ = false;
  float shift_ = 0;
};

}  // namespace chispa
