// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/music/spectrogram.h"

#include <algorithm>
#include <cmath>

#include "core/music/spectrum.h"

namespace chispa {

void Spectrogram::append(std::span<const float> levels_db) {
  for (const float level : levels_db.first(kRows))
    values_.push_back(static_cast<std::uint8_t>(std::clamp(level / -kSpectrumFloor_db * 255.f, 0.f, 255.f)));
}

std::uint8_t Spectrogram::loudest(int row, Micros from, Micros to) const {
  constexpr std::int64_t kColumn_us = 1'000'000 / MusicFeatures::kRate;
  constexpr std::int64_t kMaxLooks = 16;
  const auto count = static_cast<std::int64_t>(columns());
  const std::int64_t first = std::max<std::int64_t>(0, from.count() / kColumn_us);
  const std::int64_t end = std::min(count, std::max(first + 1, to.count() / kColumn_us));
  const std::int64_t step = std::max<std::int64_t>(1, (end - first) / kMaxLooks);
  std::uint8_t most = 0;
  for (std::int64_t column = first; column < end; column += step)
    most = std::max(most, values_[static_cast<std::size_t>(column * kRows + row)]);
  return most;
}

double Spectrogram::rowOf(double hz) {
  static const std::vector<double> edges = bandEdges_hz(kRows);
  if (hz <= edges.front()) return 0;
  if (hz >= edges.back()) return kRows;
  const auto above = std::upper_bound(edges.begin(), edges.end(), hz);
  const double low = *std::prev(above);
  return static_cast<double>(above - edges.begin() - 1) + std::log(hz / low) / std::log(*above / low);
}

}  // namespace chispa
