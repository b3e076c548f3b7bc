// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <array>
#include <chrono>
#include <cstdint>
#include <span>
#include <string>
#include <vector>

namespace chispa::link {

/// What stands where several sources send the same universe.
enum class MergeRule {
  HighestWins,  ///< channel by channel the larger value
  LatestWins,   ///< all channels of the source whose values changed last
};

/// What a protocol says about its sources.
struct MergeLimits {
  /// A source that is silent for so long is gone.
  std::chrono::milliseconds timeOut;
  /// Further sources are not heard.
  std::size_t maxSources;
  /// Sequence numbers run over 256, or over 1–255 with 0 for "not counted".
  bool countsFromZero;
};
/// E1.31 §6.7.1: network data loss after 2.5 s; §6.2.3: only the highest priority counts.
inline constexpr MergeLimits kE131Merge{std::chrono::milliseconds(2500), 32, true};
/// Art-Net 4, "Data merging": two sources; the first to be silent for 10 s is forgotten.
inline constexpr MergeLimits kArtNetMerge{std::chrono::seconds(10), 2, false};

/// One packet for a universe.
struct Arrival {
  /// What tells sources apart: a CID or an address.
  std::string source;
  std::string name;
  int priority = 100;
  std::uint8_t sequence = 0;
  bool isTerminated = false;
  std::span<const std::uint8_t> values;
  /// The values are a priority for each channel, 0 for none (start code DD), not levels.
  bool isPriorities = false;
};

/// Merges the sources of one universe. No clock of its own; one thread.
class UniverseMerge {
 public:
  using Instant = std::chrono::nanoseconds;
  static constexpr std::size_t kChannels = 512;

  struct Source {
    std::string id;
    std::string name;
    int priority = 100;
    std::uint64_t packets = 0;
    /// Sequence numbers that never came, and packets thrown away because they came too late.
    std::uint64_t lost = 0;
    std::uint64_t late = 0;
    Instant firstAt{0};
    Instant heardAt{0};
    Instant changedAt{0};
    std::uint8_t sequence = 0;
    std::array<std::uint8_t, kChannels> values{};
    /// Each channel's own priority, in place of `priority`, while the source sends them.
    std::array<std::uint8_t, kChannels> priorities{};
    Instant prioritiesAt{0};
    bool hasPriorities = false;

    int priorityOf(std::size_t channel) const { return hasPriorities ? priorities[channel] : priority; }
  };

  UniverseMerge(MergeLimits limits, MergeRule rule) : limits_(limits), rule_(rule) {}

  /// Takes a packet in; false if it is thrown away: out of order (E1.31 §6.7.2: up to 20 behind), or one
  /// source too many.
  bool accept(const Arrival& arrival, Instant now);
  /// Forgets sources that are silent too long; true if there was one.
  bool expire(Instant now);
  /// Zero where nobody sends.
  const std::array<std::uint8_t, kChannels>& values() const { return merged_; }
  const std::vector<Source>& sources() const { return sources_; }

 private:
  bool isInOrder(Source& source, std::uint8_t sequence) const;
  void merge();
  void mergeByChannel();

  MergeLimits limits_;
  MergeRule rule_;
  std::vector<Source> sources_;
  std::array<std::uint8_t, kChannels> merged_{};
};

}  // namespace chispa::link
