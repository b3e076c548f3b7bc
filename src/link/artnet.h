// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <array>
#include <cstdint>
#include <optional>
#include <span>
#include <string>

#include "core/base/result.h"

namespace chispa::link {

inline constexpr int kArtNetPort = 6454;
/// Size of an ArtDmx packet with all 512 channels.
inline constexpr std::size_t kArtDmxPacketSize = 530;

/// ArtPoll: "who is there?" (Art-Net 4, ArtPoll).
inline constexpr std::size_t kArtPollPacketSize = 14;
void writeArtPoll(std::span<std::uint8_t> packet);

/// What a node says of itself (Art-Net 4, ArtPollReply). A node of more than four ports sends several.
struct ArtPollReply {
  std::array<std::uint8_t, 4> address{};
  std::string shortName;
  std::string longName;
  int ports = 0;
  /// Port-Addresses of its outputs; a node has up to four in a reply.
  std::array<int, 4> portAddresses{};
  /// Which of its replies this is, from 1; 0 if it has only one.
  int bindIndex = 0;
};
/// Reads a reply; anything else is nothing.
std::optional<ArtPollReply> readArtPollReply(std::span<const std::uint8_t> packet);
/// Chispa's own answer, as a controller of style StController: it has no ports.
inline constexpr std::size_t kArtPollReplyPacketSize = 239;
void writeArtPollReply(std::span<std::uint8_t> packet, const std::array<std::uint8_t, 4>& address,
                       const std::string& name);
bool isArtPoll(std::span<const std::uint8_t> packet);
bool isArtSync(std::span<const std::uint8_t> packet);

/// ArtAddress: programmes names and Port-Addresses of up to four ports of a node (Art-Net 4, ArtAddress).
struct ArtAddress {
  /// Which four: the bind index of the node's reply.
  int bindIndex = 1;
  /// Left as they are if empty.
  std::string shortName;
  std::string longName;
  /// Net and sub-net are common to the four, so all lie in one block of 16.
  std::array<std::optional<int>, 4> outputs{};
};
inline constexpr std::size_t kArtAddressPacketSize = 107;
/// Fails if the outputs do not lie in one block of 16 Port-Addresses.
Outcome writeArtAddress(std::span<std::uint8_t> packet, const ArtAddress& wanted);

/// An ArtDmx packet as it arrived.
struct ArtDmx {
  int portAddress = 0;
  /// 0 if the source does not count.
  std::uint8_t sequence = 0;
  std::span<const std::uint8_t> values;
};
std::optional<ArtDmx> readArtDmx(std::span<const std::uint8_t> packet);

/// ArtSync: nodes show what they have been sent (Art-Net 4, ArtSync).
inline constexpr std::size_t kArtSyncPacketSize = 14;
void writeArtSync(std::span<std::uint8_t> packet);

/// Writes everything of an ArtDmx packet but sequence and values (Art-Net 4, "ArtDmx": OpCode 0x5000,
/// protocol version 14, length 512). `portAddress` is the 15-bit Port-Address 0–32767.
void writeArtDmxHeader(std::span<std::uint8_t> packet, int portAddress);

/// 1–255; 0 would tell the receiver not to put packets in order.
void setArtDmxSequence(std::span<std::uint8_t> packet, std::uint8_t sequence);
/// Where the values of channels 1–512 stand in `packet`.
std::span<std::uint8_t> artDmxValues(std::span<std::uint8_t> packet);

}  // namespace chispa::link
