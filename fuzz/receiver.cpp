// SPDX-License-Identifier: GPL-3.0-or-later
// Packet after packet into the merging of universes: whatever comes in whatever order, the sources stay
// bounded and the values are some source's.
#include <algorithm>
#include <cstddef>
#include <cstdint>
#include <cstdlib>
#include <map>
#include <span>

#include "link/artnet.h"
#include "link/e131.h"
#include "link/merge.h"

using namespace chispa::link;

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
  std::span<const std::uint8_t> left(data, size);
  std::map<int, UniverseMerge> universes;
  UniverseMerge::Instant now{0};
  const MergeRule rule = size % 2 ? MergeRule::HighestWins : MergeRule::LatestWins;
  while (left.size() >= 3) {
    // How long after the one before, and how long it is.
    now += std::chrono::milliseconds(left[0] * 20);
    const std::size_t length = std::min(left.size() - 3, std::size_t{left[1]} << 8 | left[2]);
    const auto packet = left.subspan(3, length);
    left = left.subspan(3 + length);
    if (const auto e131 = readE131Data(packet)) {
      auto& merge = universes.try_emplace(e131->universe, kE131Merge, rule).first->second;
      merge.accept({std::string(e131->cid.begin(), e131->cid.end()), e131->name, e131->priority,
                    e131->sequence, e131->isTerminated, e131->values, e131->startCode == kE131PrioritiesCode},
                   now);
    } else if (const auto artnet = readArtDmx(packet)) {
      auto& merge = universes.try_emplace(100'000 + artnet->portAddress, kArtNetMerge, rule).first->second;
      merge.accept({std::to_string(packet.size()), {}, 100, artnet->sequence, false, artnet->values}, now);
    }
    readE131Sync(packet);
    readE131Discovery(packet);
    for (auto& [number, merge] : universes) {
      merge.expire(now);
      if (merge.sources().size() > 32) std::abort();
      if (merge.sources().empty() && std::ranges::any_of(merge.values(), [](auto v) { return v != 0; }))
        std::abort();
    }
  }
  return 0;
}
