// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <array>
#include <string>
#include <vector>

#include "core/base/id.h"
#include "core/colour/rgb.h"

namespace chispa {

/// One colour of a palette and where it stands, 0–1.
struct ColourStop {
  double at = 0;
  Srgb8 colour;

  bool operator==(const ColourStop&) const = default;
};

/// A named gradient that clips refer to by id: changed once, it changes everywhere.
struct Palette {
  PaletteId id;
  std::string name;
  /// In order of `at`; may be empty (black) or hold one stop (one colour throughout).
  std::vector<ColourStop> stops;

  bool operator==(const Palette&) const = default;
};

/// The linear colour of `palette` at `at` (0–1, clamped), interpolated in OKLab between its stops.
Rgb colourAt(const Palette& palette, double at);

/// A palette made ready for effects: a fine table in linear light.
class PaletteTable {
 public:
  static constexpr int kSteps = 1024;

  PaletteTable() = default;
  explicit PaletteTable(const Palette& palette);

  /// Colour at `u`, where anything below 0 or above 1 takes the end's colour.
  Rgb clamped(float u) const {
    const float x = u <= 0 ? 0 : u >= 1 ? 1 : u;
    return table_[static_cast<std::size_t>(x * kSteps)];
  }
  /// Colour at `u` with the palette repeated without end: its last colour leads back to its first.
  Rgb wrapped(float u) const {
    const float x = u - static_cast<float>(static_cast<long>(u)) + (u < 0 ? 1.f : 0.f);
    return loop_[static_cast<std::size_t>(x * kSteps) % kSteps];
  }

 private:
  std::array<Rgb, kSteps + 1> table_{};
  std::array<Rgb, kSteps> loop_{};
};

}  // namespace chispa
