// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <array>
#include <cstdint>
#include <optional>
#include <span>
#include <string>
#include <vector>

#include "link/udp.h"

namespace chispa::link {

/// Component identifier: the UUID of a sender (ANSI E1.31-2018 §5.6).
using Cid = std::array<std::uint8_t, 16>;

/// Who sends E1.31, in every packet.
struct E131Source {
  Cid cid{};
  /// UTF-8; cut at 63 bytes.
  std::string name = "Chispa";
  /// 0–200 (§6.2.3).
  std::uint8_t priority = 100;
};

/// Size of a data packet with all 512 channels.
inline constexpr std::size_t kE131PacketSize = 638;
inline constexpr int kE131Port = 5568;

/// Writes everything of a data packet but sequence, options and values (§4.1, tables 4-1 to 4-3; 512 channels
/// behind start code 0). `universe` is 1–63999. `packet` has kE131PacketSize bytes.
void writeE131Header(std::span<std::uint8_t> packet, const E131Source& source, int universe);

// What changes from frame to frame.

/// Universe of the sync packets that the data waits for; 0 for none (§6.2.4.1).
void setE131SyncAddress(std::span<std::uint8_t> packet, int universe);

/// A synchronisation packet (§4.2, §6.3).
inline constexpr std::size_t kE131SyncPacketSize = 49;
void writeE131Sync(std::span<std::uint8_t> packet, const E131Source& source, int universe);
void setE131SyncSequence(std::span<std::uint8_t> packet, std::uint8_t sequence);

/// A page of the list of universes that a source sends (§4.3, §8): at most 512 on a page.
inline constexpr int kE131DiscoveryUniverse = 64'214;
inline constexpr std::size_t kE131DiscoveryPerPage = 512;
std::vector<std::uint8_t> e131Discovery(const E131Source& source, int page, int lastPage,
                                        std::span<const int> universes);

/// The multicast group of a universe: 239.255.high.low (§9.3.1).
Endpoint e131Group(int universe, int port);

void setE131Sequence(std::span<std::uint8_t> packet, std::uint8_t sequence);
/// Marks the end of the stream (§6.2.6, bit 6), or takes the mark away.
void setE131Terminated(std::span<std::uint8_t> packet, bool terminated);
/// Where the values of channels 1–512 stand in `packet`.
std::span<std::uint8_t> e131Values(std::span<std::uint8_t> packet);

/// A data packet as it arrived (§4.1).
struct E131Data {
  Cid cid{};
  std::string name;
  int priority = 100;
  int syncUniverse = 0;
  std::uint8_t sequence = 0;
  bool isPreview = false;
  bool isTerminated = false;
  int universe = 0;
  /// 0 for levels; kE131PrioritiesCode where the values are a priority for each slot.
  std::uint8_t startCode = 0;
  std::span<const std::uint8_t> values;
};
/// Start code DD (an alternate start code registered with ESTA): each slot's own priority, 1–200; 0 where the
/// source has no say.
inline constexpr std::uint8_t kE131PrioritiesCode = 0xdd;
/// Reads a data packet of start code 0 or DD; anything that is not exactly one is nothing.
std::optional<E131Data> readE131Data(std::span<const std::uint8_t> packet);

struct E131Sync {
  Cid cid{};
  std::uint8_t sequence = 0;
  int universe = 0;
};
std::optional<E131Sync> readE131Sync(std::span<const std::uint8_t> packet);

struct E131DiscoveryPage {
  Cid cid{};
  std::string name;
  int page = 0;
  int lastPage = 0;
  std::vector<int> universes;
};
std::optional<E131DiscoveryPage> readE131Discovery(std::span<const std::uint8_t> packet);

/// A random UUID, version 4 (RFC 4122 §4.4).
Cid randomCid();

}  // namespace chispa::link
