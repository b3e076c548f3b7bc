// SPDX-License-Identifier: GPL-3.0-or-later
#include "link/merge.h"

#include <algorithm>

namespace chispa::link {

bool UniverseMerge::isInOrder(Source& source, std::uint8_t sequence) const {
  if (source.packets == 0) return true;
  if (!limits_.countsFromZero && (sequence == 0 || source.sequence == 0)) return true;
  int step = static_cast<std::int8_t>(sequence - source.sequence);
  // Where numbers go from 255 to 1, a turn has one number less.
  if (!limits_.countsFromZero && sequence < source.sequence && step > 0) --step;
  constexpr int kBehind = -20;
  if (step <= 0 && step > kBehind) return false;
  if (step > 1) source.lost += static_cast<std::uint64_t>(step - 1);
  return true;
}

bool UniverseMerge::accept(const Arrival& arrival, Instant now) {
  expire(now);
  auto found = std::find_if(sources_.begin(), sources_.end(), [&](const Source& s) { return s.id == arrival.source; });
  if (arrival.isTerminated) {
    if (found == sources_.end()) return false;
    sources_.erase(found);
    merge();
    return true;
  }
  if (found == sources_.end()) {
    if (sources_.size() >= limits_.mostSources) return false;
    sources_.push_back({});
    found = sources_.end() - 1;
    found->id = arrival.source;
    found->firstAt = now;
  }
  if (!isInOrder(*found, arrival.sequence)) {
    ++found->late;
    return false;
  }
  found->name = arrival.name;
  found->priority = arrival.priority;
  found->sequence = arrival.sequence;
  found->heardAt = now;
  std::array<std::uint8_t, kChannels> values{};
  std::copy_n(arrival.values.begin(), std::min(arrival.values.size(), kChannels), values.begin());
  if (found->packets == 0 || values != found->values) found->changedAt = now;
  found->values = values;
  ++found->packets;
  merge();
  return true;
}

bool UniverseMerge::expire(Instant now) {
  const auto gone = std::erase_if(sources_, [&](const Source& s) { return now - s.heardAt >= limits_.timeOut; });
  if (gone > 0) merge();
  return gone > 0;
}

void UniverseMerge::merge() {
  merged_.fill(0);
  int highest = -1;
  for (const Source& source : sources_) highest = std::max(highest, source.priority);
  const Source* latest = nullptr;
  for (const Source& source : sources_) {
    if (source.priority != highest) continue;
    if (!latest || source.changedAt > latest->changedAt) latest = &source;
    for (std::size_t i = 0; i < kChannels && rule_ == MergeRule::HighestWins; ++i) merged_[i] = std::max(merged_[i], source.values[i]);
  }
  if (latest && rule_ == MergeRule::LatestWins) merged_ = latest->values;
}

}  // namespace chispa::link
