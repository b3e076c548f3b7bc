// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <array>
#include <cstdint>
#include <vector>

#include "core/show/show.h"
#include "core/zone/pixelmap.h"

namespace chispa {

/// Which of the frames that a controller is sent one is, as far as dithering goes: its number in a period of
/// so many frames. Light between two values is written as the upper one in some frames of each period, and
/// what a period cannot say as a still pattern over the pixels. Without a period each value is the nearest.
struct DitherFrame {
  std::uint8_t period = 0;
  std::uint8_t number = 0;

  bool operator==(const DitherFrame&) const = default;
};

/// Whether light that is written down is dithered.
enum class Dither {
  OverTime,  ///< as it is sent
  None,      ///< the nearest value, for light that stands for long
};

/// Nothing that dithering does comes back more seldom than so often a second.
inline constexpr double kSlowestDither_hz = 10;
inline constexpr int kLongestDither = 12;

/// Frames of a period at that rate: as many as come back kSlowestDither_hz times a second.
int ditherPeriod(double framesPerSecond);
/// The frame before which `sent` frames were sent.
DitherFrame ditherFrame(std::uint64_t sent, double framesPerSecond);

/// Thresholds of all places in all frames, made once. A place is one of a square tile of blue noise: by
/// column and row in a matrix, row after row of the tile along a line; each channel has a tile of its own. A
/// place's value is the upper of two if what lies between them and its threshold make 256 or more, both
/// counted in 256ths of a step.
class DitherTables {
 public:
  static constexpr int kChannels = 5;
  /// Side of the square tile; a power of two.
  static constexpr std::size_t kSide = 64;
  static constexpr std::size_t kTile = kSide * kSide;
  /// Places that follow once more behind the tile's end, so that so many in a row can be read at once.
  static constexpr std::size_t kRepeated = 128;
  static constexpr std::size_t kPlaces = kTile + kRepeated;
  using Plane = std::array<std::uint8_t, kPlaces>;

  /// Chain-safe; the first call makes them, in some 50 ms.
  static const DitherTables& get();

  /// Thresholds by place; `frame` needs a period.
  const Plane& plane(DitherFrame frame, int channel) const {
    return planes_[first_[frame.period] + static_cast<std::size_t>(frame.number) * kChannels +
                   static_cast<std::size_t>(channel)];
  }

  static std::uint16_t placeInPlane(int column, int row) {
    return static_cast<std::uint16_t>(static_cast<std::size_t>(row) % kSide * kSide +
                                      static_cast<std::size_t>(column) % kSide);
  }
  static std::uint16_t placeInLine(std::size_t pixel) { return static_cast<std::uint16_t>(pixel % kTile); }
  /// True if `next` stands behind `place` in the tables.
  static bool isNext(std::uint16_t place, std::uint16_t next) { return next == (place + 1) % kTile; }

 private:
  DitherTables();

  /// By period: the first of its planes.
  std::array<std::size_t, kLongestDither + 1> first_{};
  std::vector<Plane> planes_;
};

/// The place of each pixel of the show: by column and row where it is in a matrix, along the line elsewhere.
std::vector<std::uint16_t> ditherPlaces(const Show& show, const PixelMap& map);

}  // namespace chispa
