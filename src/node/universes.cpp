// SPDX-License-Identifier: GPL-3.0-or-later
#include "node/universes.h"

#include <algorithm>

namespace chispa::node {
namespace {

/// How many packets are missing between two sequence numbers; Art-Net never uses 0.
std::uint64_t missedBetween(const std::string& protocol, std::uint8_t before, std::uint8_t now) {
  const int turn = protocol == "artnet" ? 255 : 256;
  const int gap = (now - before + turn) % turn - 1;
  // A small step back is a packet overtaken by another, not 250 lost ones.
  constexpr int kBackwards = 20;
  return gap > 0 && gap < turn - kBackwards ? static_cast<std::uint64_t>(gap) : 0;
}

/// E1.31 §6.7.2: up to 20 behind the last is too late.
bool isTooLate(const std::string& protocol, std::uint8_t before, std::uint8_t now) {
  if (protocol == "artnet" && (before == 0 || now == 0)) return false;
  const auto step = static_cast<std::int8_t>(now - before);
  return step <= 0 && step > -20;
}

}  // namespace

Universes::Universe* Universes::universeOf(const std::string& protocol, int number) {
  const auto found = universes_.find({protocol, number});
  if (found != universes_.end()) return &found->second;
  return universes_.size() < kMaxUniverses ? &universes_[{protocol, number}] : nullptr;
}

Universes::Source* Universes::sourceOf(Universe& universe, const std::string& sender) {
  const auto found = std::find_if(universe.sources.begin(), universe.sources.end(),
                                  [&](const Source& s) { return s.sender == sender; });
  if (found != universe.sources.end()) return &*found;
  if (universe.sources.size() >= kMaxSources) return nullptr;
  universe.sources.push_back({sender, 100, {}, {}});
  return &universe.sources.back();
}

void Universes::merge(Universe& universe, Instant now) {
  constexpr std::chrono::milliseconds kGone{2500};
  std::erase_if(universe.sources, [&](const Source& s) { return now - s.heardAt > kGone; });
  int highest = -1;
  for (const Source& source : universe.sources) highest = std::max(highest, source.priority);
  if (highest < 0) return;
  const auto before = universe.values;
  universe.values.fill(0);
  for (const Source& source : universe.sources)
    for (std::size_t i = 0; i < universe.values.size() && source.priority == highest; ++i)
      universe.values[i] = std::max(universe.values[i], source.values[i]);
  if (universe.values != before) universe.changedAt = now;
}

void Universes::accept(const std::string& protocol, const std::string& sender, const DataPacket& packet,
                       Instant now) {
  Universe* const known = universeOf(protocol, packet.universe);
  if (!known) return;
  Universe& universe = *known;
  const bool isKnown = universe.packets > 0 && !universe.terminated && universe.source == packet.sourceName;
  ++universe.packets;
  if (isKnown && isTooLate(protocol, universe.sequence, packet.sequence)) return;
  if (isKnown) universe.lost += missedBetween(protocol, universe.sequence, packet.sequence);
  universe.sequence = packet.sequence;
  universe.source = packet.sourceName;
  universe.terminated = packet.terminated;
  // Values that come with the end of a stream are not to be shown (E1.31 §6.2.6).
  if (packet.terminated) {
    std::erase_if(universe.sources, [&](const Source& s) { return s.sender == sender; });
  } else {
    Source* const source = sourceOf(universe, sender);
    if (!source) return;
    source->priority = packet.priority;
    source->heardAt = now;
    std::copy_n(packet.values.begin(), packet.count, source->values.begin());
  }
  merge(universe, now);
}

void Universes::acceptRow(const std::string& protocol, const std::string& sender, std::size_t offset,
                          std::span<const std::uint8_t> bytes, int sequence, Instant now) {
  while (!bytes.empty()) {
    const std::size_t here = std::min(bytes.size(), 512 - offset % 512);
    Universe* const page = universeOf(protocol, static_cast<int>(offset / 512));
    Source* const source = page ? sourceOf(*page, sender) : nullptr;
    if (source) {
      source->heardAt = now;
      std::copy_n(bytes.begin(), here, source->values.begin() + static_cast<std::ptrdiff_t>(offset % 512));
      page->sequence = static_cast<std::uint8_t>(sequence);
      page->source = sender;
      ++page->packets;
      merge(*page, now);
    }
    bytes = bytes.subspan(here);
    offset += here;
  }
}

int Universes::valueAt(const std::string& protocol, int universe, int channel) const {
  const auto found = universes_.find({protocol, universe});
  return found == universes_.end()
             ? 0
             : static_cast<int>(found->second.values[static_cast<std::size_t>(channel - 1)]);
}

std::vector<int> Universes::numbersOf(const std::string& protocol) const {
  std::vector<int> numbers;
  for (const auto& [stream, universe] : universes_)
    if (stream.first == protocol) numbers.push_back(stream.second);
  return numbers;
}

nlohmann::json Universes::toJson() const {
  auto list = nlohmann::json::array();
  for (const auto& [stream, universe] : universes_)
    list.push_back({{"protocol", stream.first},
                    {"universe", stream.second},
                    {"packets", universe.packets},
                    {"lost", universe.lost},
                    {"sequence", universe.sequence},
                    {"terminated", universe.terminated},
                    {"sources", universe.sources.size()},
                    {"changed_us", std::chrono::duration_cast<std::chrono::microseconds>(
                                       universe.changedAt.time_since_epoch())
                                       .count()},
                    {"source", universe.source}});
  return list;
}

}  // namespace chispa::node
