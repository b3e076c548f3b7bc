// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <array>
#include <cstdint>
#include <optional>
#include <span>
#include <string>
#include <vector>

namespace chispa::node {

/// What one data packet said, whatever protocol it came by.
struct DataPacket {
  int universe = 0;
  std::uint8_t sequence = 0;
  bool terminated = false;
  int priority = 100;
  std::string sourceName;
  int count = 0;
  std::array<std::uint8_t, 512> values{};
};

/// A piece of a DDP row.
struct DdpPiece {
  std::uint8_t sequence = 0;
  bool push = false;
  std::size_t offset = 0;
  std::span<const std::uint8_t> data;
};

// The node reads packets with code of its own, written from the standards and not from Chispa's sender, so
// that a mistake of one is seen by the other. Anything that is not exactly a data packet is nothing.

/// An E1.31 data packet (ANSI E1.31-2018 §4–§7).
std::optional<DataPacket> readE131(std::span<const std::uint8_t> bytes);
/// An ArtDmx packet (Art-Net 4).
std::optional<DataPacket> readArtDmx(std::span<const std::uint8_t> bytes);
/// True if the packet is an ArtPoll (Art-Net 4).
bool isArtPoll(std::span<const std::uint8_t> bytes);
/// The replies of a node whose output i is at portAddresses[i]: one for every four.
std::vector<std::vector<std::uint8_t>> artPollReplies(const std::array<std::uint8_t, 4>& address,
                                                      const std::string& name,
                                                      const std::vector<int>& portAddresses);

/// What an ArtAddress asks for (Art-Net 4).
struct ArtAddressOrder {
  int bindIndex = 1;
  std::string shortName;
  std::string longName;
  /// Of the four outputs of the bind index; nothing leaves one as it is.
  std::array<std::optional<int>, 4> outputs{};
};
std::optional<ArtAddressOrder> readArtAddress(std::span<const std::uint8_t> bytes);

/// True if the packet asks for the DDP status.
bool isDdpStatusQuery(std::span<const std::uint8_t> bytes);
std::vector<std::uint8_t> ddpStatusReply(const std::string& name);

/// The message at the front of an Open Pixel Control stream, if it is whole: how many bytes it takes, and its
/// colours.
struct OpcMessage {
  std::size_t size = 0;
  int channel = 0;
  int command = 0;
  std::span<const std::uint8_t> data;
};
std::optional<OpcMessage> readOpc(std::span<const std::uint8_t> stream);

/// A DDP data packet for the default output or for all; queries and replies are none.
std::optional<DdpPiece> readDdp(std::span<const std::uint8_t> bytes);

}  // namespace chispa::node
