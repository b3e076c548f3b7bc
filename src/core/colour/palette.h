// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <algorithm>
#include <array>
#include <cmath>
#include <cstddef>
#include <cstring>
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

/// How a palette gets from one colour to the next.
enum class PalettePath {
  Straight,    ///< through OKLab: between opposite colours it passes grey
  ShorterHue,  ///< along the hue (OKLCH), the shorter way round
  LongerHue,   ///< along the hue, the longer way round
};

/// A named gradient that clips refer to by id: changed once, it changes everywhere.
struct Palette {
  PaletteId id;
  std::string name;
  /// In order of `at`; may be empty (black) or hold one stop (one colour throughout).
  std::vector<ColourStop> stops;
  PalettePath path = PalettePath::Straight;

  bool operator==(const Palette&) const = default;
};

/// The linear colour of `palette` at `at` (0–1, clamped), interpolated between its stops on its path.
Rgb colourAt(const Palette& palette, double at);

/// A palette made ready for effects: a fine table in linear light.
class PaletteTable {
 public:
  static constexpr int kSteps = 1024;

  PaletteTable() = default;
  explicit PaletteTable(const Palette& palette);

  /// Colour at `u`, where anything below 0 or above 1 takes the end's colour.
  Rgb clamped(float u) const { return open_.at(clampedStep(u)); }
  /// Colour at `u` with the palette repeated without end: its last colour leads back to its first.
  Rgb wrapped(float u) const { return loop_.at(wrappedStep(u)); }

  /// The same for `count` places at once, each colour times its `strengths`, into separate channels. No two
  /// may overlap.
  void clamped(const float* places, const float* strengths, std::size_t count, float* r, float* g,
               float* b) const noexcept;
  void wrapped(const float* places, const float* strengths, std::size_t count, float* r, float* g,
               float* b) const noexcept;

 private:
  /// Red, green, blue and nothing of each step, so that a look-up is one load of 16 bytes.
  using Entry = float __attribute__((vector_size(16)));
  struct Entries {
    alignas(16) std::array<std::array<float, 4>, kSteps + 1> all{};

    Rgb at(int step) const {
      const auto& entry = all[static_cast<std::size_t>(step)];
      return {entry[0], entry[1], entry[2]};
    }
    void set(int step, Rgb colour) {
      all[static_cast<std::size_t>(step)] = {colour.r, colour.g, colour.b, 0};
    }
    Entry load(int step) const {
      Entry entry;
      std::memcpy(&entry, all[static_cast<std::size_t>(step)].data(), sizeof entry);
      return entry;
    }
  };
  /// In this order of arguments what is no number becomes 0.
  static int clampedStep(float u) { return static_cast<int>(std::min(1.f, std::max(0.f, u)) * kSteps); }
  static int wrappedStep(float u) { return static_cast<int>((u - std::floor(u)) * kSteps) & (kSteps - 1); }
  template <class StepOf>
  static void lookUp(const Entries& colours, StepOf stepOf, const float* places, const float* strengths,
                     std::size_t count, float* r, float* g, float* b) noexcept;

  Entries open_;
  Entries loop_;
};

}  // namespace chispa
