// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/wire/dither.h"

#include <algorithm>
#include <cmath>
#include <numeric>

#include "core/wire/bluenoise.h"

namespace chispa {
namespace {

/// The frames of a period in the order in which they take the upper value as more of them do: each as far
/// from those before it as can be (J. van der Corput's sequence, in order of size).
std::vector<int> framesInOrder(int period) {
  const auto mirrored = [](int n) {
    double at = 0;
    for (double place = 0.5; n > 0; n /= 2, place /= 2) at += place * (n % 2);
    return at;
  };
  std::vector<int> frames(static_cast<std::size_t>(period));
  std::iota(frames.begin(), frames.end(), 0);
  std::sort(frames.begin(), frames.end(), [&](int a, int b) { return mirrored(a) < mirrored(b); });
  return frames;
}

/// Thresholds of all noises in one frame of a period. Noise says in which frame a place begins, in the same
/// order, so that those that are lit at once are neighbours in noise, and so as even as blue noise is.
std::array<std::uint8_t, 256> thresholdsOf(int period, int number) {
  const std::vector<int> frames = framesInOrder(period);
  std::vector<int> rank(frames.size());
  for (std::size_t i = 0; i < frames.size(); ++i)
    rank[static_cast<std::size_t>(frames[i])] = static_cast<int>(i);
  // Short periods say little by themselves; what is left to the still pattern is held to a quarter of a step
  // where the nearest value is no further off.
  const double share = std::clamp(period / 2.0 - 1, 0.0, 1.0);
  std::array<std::uint8_t, 256> thresholds;
  for (int noise = 0; noise < 256; ++noise) {
    const int begins = frames[static_cast<std::size_t>(noise * period >> 8)];
    const double still = 128 + ((noise * period & 255) - 128) * share;
    thresholds[static_cast<std::size_t>(noise)] = static_cast<std::uint8_t>(
        (rank[static_cast<std::size_t>((number + begins) % period)] * 256 + still) / period);
  }
  return thresholds;
}

using Noise = std::array<std::uint8_t, DitherTables::kPlaces>;

/// The tile of one channel: that of the first, moved on, so that no two channels of a pixel step together.
Noise noiseOf(const std::vector<std::uint8_t>& tile, int channel) {
  constexpr std::size_t kSide = DitherTables::kSide;
  Noise noise;
  const auto moved = static_cast<std::size_t>(channel);
  for (std::size_t i = 0; i < noise.size(); ++i) {
    const std::size_t row = i / kSide % kSide, column = i % kSide;
    noise[i] = tile[(row + moved * 23) % kSide * kSide + (column + moved * 37) % kSide];
  }
  return noise;
}

}  // namespace

int ditherPeriod(double framesPerSecond) {
  // Rates that are a hair below a whole number are meant as that.
  const double frames = std::floor(framesPerSecond / kSlowestDither_hz + 1e-6);
  return static_cast<int>(std::clamp(frames, 1.0, static_cast<double>(kLongestDither)));
}

DitherFrame ditherFrame(std::uint64_t sent, double framesPerSecond) {
  const auto period = static_cast<std::uint64_t>(ditherPeriod(framesPerSecond));
  return {static_cast<std::uint8_t>(period), static_cast<std::uint8_t>(sent % period)};
}

const DitherTables& DitherTables::get() {
  static const DitherTables tables;
  return tables;
}

DitherTables::DitherTables() {
  const auto tile = blueNoise(kSide, kSide, 1);
  std::vector<Noise> noises;
  for (int channel = 0; channel < kChannels; ++channel) noises.push_back(noiseOf(tile, channel));
  for (int period = 1; period <= kLongestDither; ++period) {
    first_[static_cast<std::size_t>(period)] = planes_.size();
    for (int number = 0; number < period; ++number) {
      const auto thresholds = thresholdsOf(period, number);
      for (const Noise& noise : noises)
        std::transform(noise.begin(), noise.end(), planes_.emplace_back().begin(),
                       [&](std::uint8_t n) { return thresholds[n]; });
    }
  }
}

std::vector<std::uint16_t> ditherPlaces(const Show& show, const PixelMap& map) {
  std::vector<std::uint16_t> places(static_cast<std::size_t>(map.count()));
  for (std::size_t pixel = 0; pixel < places.size(); ++pixel)
    places[pixel] = DitherTables::placeInLine(pixel);
  for (const auto& fixture : show.fixtures) {
    const auto range = map.rangeOf(fixture->id);
    if (!range) continue;
    auto pixel = static_cast<std::size_t>(range->first);
    for (const Segment& segment : fixture->segments) {
      const auto cells = matrixCells(segment);
      for (std::size_t i = 0; i < cells.size() && pixel + i < places.size(); ++i)
        places[pixel + i] = DitherTables::placeInPlane(cells[i].column, cells[i].row);
      pixel += static_cast<std::size_t>(pixelCount(segment));
    }
  }
  return places;
}

}  // namespace chispa
