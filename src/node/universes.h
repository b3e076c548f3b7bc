// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <chrono>
#include <map>
#include <string>
#include <vector>

#include <nlohmann/json.hpp>

#include "node/decode.h"

namespace chispa::node {

/// What has arrived by every protocol, sources merged: the highest priority, and of those channel by channel
/// the largest value. No thread of its own. What it keeps is bounded: kMaxUniverses, and of each
/// kMaxSources.
class Universes {
 public:
  using Instant = std::chrono::steady_clock::time_point;
  static constexpr std::size_t kMaxUniverses = 1024;
  static constexpr std::size_t kMaxSources = 64;

  /// Takes a packet of `sender` (what tells its sources apart) in.
  void accept(const std::string& protocol, const std::string& sender, const DataPacket& packet, Instant now);
  /// Takes a piece of a row of bytes in; it is kept in pages of 512, numbered from 0.
  void acceptRow(const std::string& protocol, const std::string& sender, std::size_t offset,
                 std::span<const std::uint8_t> bytes, int sequence, Instant now);

  /// The value at a channel from 1; 0 where nothing came.
  int valueAt(const std::string& protocol, int universe, int channel) const;
  /// The numbers of all universes of a protocol that have been heard, rising.
  std::vector<int> numbersOf(const std::string& protocol) const;
  nlohmann::json toJson() const;

 private:
  struct Source {
    std::string sender;
    int priority = 100;
    std::array<std::uint8_t, 512> values{};
    Instant heardAt;
  };
  struct Universe {
    std::array<std::uint8_t, 512> values{};
    std::vector<Source> sources;
    std::uint64_t packets = 0;
    std::uint64_t lost = 0;
    std::uint8_t sequence = 0;
    bool terminated = false;
    std::string source;
    /// When the values last became other ones.
    Instant changedAt = {};
  };
  static void merge(Universe& universe, Instant now);
  /// The universe, or null for one too many.
  Universe* universeOf(const std::string& protocol, int number);
  /// The source, or null for one too many.
  Source* sourceOf(Universe& universe, const std::string& sender);

  std::map<std::pair<std::string, int>, Universe> universes_;
};

}  // namespace chispa::node
