// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <algorithm>
#include <array>
#include <cstdint>

#include "core/colour/rgb.h"

namespace chispa {

/// Screens' values for light, looked up: for pictures of many dots. At most one value off toSrgb8().
class SrgbTable {
 public:
  /// Thread-safe.
  static const SrgbTable& get();

  std::uint8_t value(float light) const {
    return values_[static_cast<std::size_t>(std::min(1.f, std::max(0.f, light)) * kSteps + 0.5f)];
  }
  Srgb8 colour(float r, float g, float b) const { return {value(r), value(g), value(b)}; }

 private:
  SrgbTable();

  static constexpr int kSteps = 16384;
  std::array<std::uint8_t, kSteps + 1> values_{};
};

}  // namespace chispa
