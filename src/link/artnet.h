// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <array>
#include <cstdint>
#include <optional>
#include <span>
#include <string>

namespace chispa::link {

inline constexpr int kArtNetPort = 6454;
/// Size of an ArtDmx packet with all 512 channels.
inline constexpr std::size_t kArtDmxPacketSize = 530;

/// ArtPoll: "who is there?" (Art-Net 4, ArtPoll).
inline constexpr std::size_t kArtPollPacketSize = 14;
void writeArtPoll(std::span<std::uint8_t> packet);

/// What a node says of itself (Art-Net 4, ArtPollReply).
struct ArtPollReply {
  std::string shortName;
  std::string longName;
  int ports = 0;
  /// Port-Addresses of its outputs; a node has up to four in a reply.
  std::array<int, 4> portAddresses{};
};
/// Reads a reply; anything else is nothing.
std::optional<ArtPollReply> readArtPollReply(std::span<const std::uint8_t> packet);

/// ArtSync: nodes show what they have been sent (Art-Net 4, ArtSync).
inline constexpr std::size_t kArtSyncPacketSize = 14;
void writeArtSync(std::span<std::uint8_t> packet);

/// Writes everything of an ArtDmx packet but sequence and values (Art-Net 4, "ArtDmx": OpCode 0x5000, protocol
/// version 14, length 512). `portAddress` is the 15-bit Port-Address 0–32767.
void writeArtDmxHeader(std::span<std::uint8_t> packet, int portAddress);

/// 1–255; 0 would tell the receiver not to put packets in order.
void setArtDmxSequence(std::span<std::uint8_t> packet, std::uint8_t sequence);
/// Where the values of channels 1–512 stand in `packet`.
std::span<std::uint8_t> artDmxValues(std::span<std::uint8_t> packet);

}  // namespace chispa::link
