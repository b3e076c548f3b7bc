// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/wire/bluenoise.h"

#include <algorithm>
#include <array>
#include <cmath>

#include "core/base/hash.h"

namespace chispa {
namespace {

/// Places that are taken or free, and how crowded each place is by those taken around it.
class Tile {
 public:
  Tile(int columns, int rows) : columns_(columns), rows_(rows), taken_(size()), crowd_(size()) {
    for (int d = -kReach; d <= kReach; ++d)
      near_[static_cast<std::size_t>(d + kReach)] =
          std::exp(-static_cast<float>(d * d) / (2 * kWidth * kWidth));
  }

  std::size_t size() const { return static_cast<std::size_t>(columns_) * static_cast<std::size_t>(rows_); }
  bool isTaken(std::size_t place) const { return taken_[place] != 0; }
  void take(std::size_t place) { put(place, 1); }
  void leave(std::size_t place) { put(place, -1); }
  /// The taken place that is most crowded, and the free one that is least.
  std::size_t cluster() const { return furthest(1, 1.f); }
  std::size_t opening() const { return furthest(0, -1.f); }

 private:
  /// The width of the bell that tells how near is crowded, and where it ends.
  static constexpr float kWidth = 1.5f;
  static constexpr int kReach = 7;

  void put(std::size_t place, int sign) {
    taken_[place] = sign > 0;
    const int column = static_cast<int>(place) % columns_;
    const int row = static_cast<int>(place) / columns_;
    const int reachUp = rows_ > 1 ? kReach : 0;
    for (int dy = -reachUp; dy <= reachUp; ++dy)
      for (int dx = -kReach; dx <= kReach; ++dx)
        crowd_[wrapped(column + dx, columns_) +
               wrapped(row + dy, rows_) * static_cast<std::size_t>(columns_)] +=
            static_cast<float>(sign) * near_[static_cast<std::size_t>(dx + kReach)] *
            near_[static_cast<std::size_t>(dy + kReach)];
  }
  static std::size_t wrapped(int i, int count) {
    return static_cast<std::size_t>((i % count + count) % count);
  }

  std::size_t furthest(std::uint8_t taken, float sign) const {
    std::size_t best = size();
    for (std::size_t i = 0; i < size(); ++i)
      if (taken_[i] == taken && (best == size() || sign * crowd_[i] > sign * crowd_[best])) best = i;
    return best;
  }

  int columns_;
  int rows_;
  std::vector<std::uint8_t> taken_;
  std::vector<float> crowd_;
  std::array<float, 2 * kReach + 1> near_{};
};

/// A tenth of all places, moved from where they are crowded to where they are not until no move helps.
Tile evenStart(int columns, int rows, std::uint32_t seed) {
  Tile tile(columns, rows);
  const std::size_t wanted = std::max<std::size_t>(1, tile.size() / 10);
  for (std::uint32_t i = 0, count = 0; count < wanted; ++i) {
    const std::size_t place = mixBits32(seed * kGoldenBits32 ^ i) % tile.size();
    if (tile.isTaken(place)) continue;
    tile.take(place);
    ++count;
  }
  for (std::size_t moves = 0; moves < tile.size(); ++moves) {
    const std::size_t from = tile.cluster();
    tile.leave(from);
    const std::size_t to = tile.opening();
    tile.take(to);
    if (to == from) break;
  }
  return tile;
}

}  // namespace

std::vector<std::uint8_t> blueNoise(int columns, int rows, std::uint32_t seed) {
  const Tile start = evenStart(columns, rows, seed);
  const std::size_t size = start.size();
  std::vector<std::size_t> ranks(size);
  std::size_t taken = 0;
  for (std::size_t i = 0; i < size; ++i) taken += start.isTaken(i) ? 1 : 0;
  Tile down = start;
  for (std::size_t rank = taken; rank-- > 0;) {
    const std::size_t place = down.cluster();
    down.leave(place);
    ranks[place] = rank;
  }
  Tile up = start;
  for (std::size_t rank = taken; rank < size; ++rank) {
    const std::size_t place = up.opening();
    up.take(place);
    ranks[place] = rank;
  }
  std::vector<std::uint8_t> thresholds(size);
  for (std::size_t i = 0; i < size; ++i) thresholds[i] = static_cast<std::uint8_t>(ranks[i] * 256 / size);
  return thresholds;
}

}  // namespace chispa
