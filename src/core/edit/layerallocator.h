// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <map>
#include <unordered_map>
#include <vector>

#include "core/show/score.h"

namespace chispa {

/// Which layers of which staves are taken when: finds a free one without looking at all clips each time.
class LayerAllocator {
 public:
  explicit LayerAllocator(const Score& score) {
    for (const auto& clip : score.clips) put(clip->zone, clip->layer, clip->start, clip->end());
  }

  /// The lowest layer from `least` on that is free on `zone` from `start` up to `end`; it is taken from now
  /// on.
  int take(ZoneId zone, Micros start, Micros end, int least) {
    auto& layers = layers_[zone];
    for (auto layer = static_cast<std::size_t>(least);; ++layer) {
      if (layer < layers.size() && !isFree(layers[layer], start, end)) continue;
      put(zone, static_cast<int>(layer), start, end);
      return static_cast<int>(layer);
    }
  }

 private:
  /// Stretches in use, by where they begin; the value is the latest end of all that begin there or before.
  using Stretches = std::map<Micros, Micros>;

  void put(ZoneId zone, int layer, Micros start, Micros end) {
    auto& layers = layers_[zone];
    if (layers.size() <= static_cast<std::size_t>(layer)) layers.resize(static_cast<std::size_t>(layer) + 1);
    Stretches& taken = layers[static_cast<std::size_t>(layer)];
    const auto here = taken.try_emplace(start, end).first;
    if (here != taken.begin()) here->second = std::max(here->second, std::prev(here)->second);
    for (auto at = here; at != taken.end() && (at == here || at->second < end); ++at)
      at->second = std::max(at->second, end);
  }
  static bool isFree(const Stretches& taken, Micros start, Micros end) {
    auto next = taken.lower_bound(end);
    return next == taken.begin() || std::prev(next)->second <= start;
  }

  std::unordered_map<ZoneId, std::vector<Stretches>> layers_;
};

}  // namespace chispa
