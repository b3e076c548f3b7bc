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
  auto found =
      std::find_if(sources_.begin(), sources_.end(), [&](const Source& s) { return s.id == arrival.source; });
  if (arrival.isTerminated) {
    if (found == sources_.end()) return false;
    sources_.erase(found);
    merge();
    return true;
  }
  if (found == sources_.end()) {
    if (sources_.size() >= limits_.maxSources) return false;
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
  if (arrival.isPriorities) {
    found->priorities = values;
    found->prioritiesAt = now;
    found->hasPriorities = true;
    ++found->packets;
    merge();
    return true;
  }
  if (found->packets == 0 || values != found->values) found->changedAt = now;
  found->values = values;
  ++found->packets;
  merge();
  return true;
}

bool UniverseMerge::expire(Instant now) {
  auto gone = std::erase_if(sources_, [&](const Source& s) { return now - s.heardAt >= limits_.timeOut; });
  for (Source& source : sources_)
    if (source.hasPriorities && now - source.prioritiesAt >= limits_.timeOut) {
      source.hasPriorities = false;
      ++gone;
    }
  if (gone > 0) merge();
  return gone > 0;
}

/// Where any source has a priority for each channel, each channel is merged by itself.
void UniverseMerge::mergeByChannel() {
  for (std::size_t i = 0; i < kChannels; ++i) {
    int highest = 0;
    const Source* latest = nullptr;
    for (const Source& source : sources_) {
      const int own = source.priorityOf(i);
      // 0 among priorities of channels says that the source has no say here.
      if ((source.hasPriorities && own == 0) || own < highest) continue;
      if (own > highest || !latest) {
        highest = own;
        latest = &source;
        merged_[i] = source.values[i];
      } else if (rule_ == MergeRule::HighestWins) {
        merged_[i] = std::max(merged_[i], source.values[i]);
      } else if (source.changedAt > latest->changedAt) {
        latest = &source;
        merged_[i] = source.values[i];
      }
    }
  }
}

void UniverseMerge::merge() {
  merged_.fill(0);
  if (std::any_of(sources_.begin(), sources_.end(), [](const Source& s) { return s.hasPriorities; }))
    return mergeByChannel();
  int highest = -1;
  for (const Source& source : sources_) highest = std::max(highest, source.priority);
  const Source* latest = nullptr;
  for (const Source& source : sources_) {
    if (source.priority != highest) continue;
    if (!latest || source.changedAt > latest->changedAt) latest = &source;
    for (std::size_t i = 0; i < kChannels && rule_ == MergeRule::HighestWins; ++i)
      merged_[i] = std::max(merged_[i], source.values[i]);
  }
  if (latest && rule_ == MergeRule::LatestWins) merged_ = latest->values;
}

}  // namespace chispa::link
