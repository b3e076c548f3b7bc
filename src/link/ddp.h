// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <cstdint>
#include <optional>
#include <span>
#include <string>

namespace chispa::link {

/// The open Distributed Display Protocol: one row of bytes, sent in pieces with their place in it.
inline constexpr int kDdpPort = 4048;
inline constexpr std::size_t kDdpHeaderSize = 10;
/// Most data of a packet, so that it fits into an Ethernet frame.
inline constexpr std::size_t kDdpMostData = 1440;

/// What a row's values are, where all are alike; 0 channels if not.
struct RowFormat {
  int channels = 0;
  int bits = 8;
};
/// The data type byte: 0 undefined, else 0 0 T T T S S S, T 1 for RGB and 3 for RGBW, S 3 for 8 bits and 4
/// for 16.
std::uint8_t ddpDataType(RowFormat format);

/// Header of a data packet: version 1, default output; `push` on the last packet of a frame.
struct DdpHeader {
  /// 1–15; 0 is not counted.
  std::uint8_t sequence = 0;
  bool push = false;
  std::uint32_t offset = 0;
  std::uint16_t length = 0;
  std::uint8_t dataType = 0;
};
void writeDdpHeader(std::span<std::uint8_t> packet, const DdpHeader& header);

/// Ids of JSON that a display is asked for.
enum class DdpQuery : std::uint8_t { Config = 250, Status = 251 };
/// Writes a query: a header without data, whose reply bears the JSON.
void writeDdpQuery(std::span<std::uint8_t> packet, DdpQuery what);
/// The JSON of a reply to `what`; anything else is nothing.
std::optional<std::string> readDdpReply(std::span<const std::uint8_t> packet, DdpQuery what);

/// A piece of a row as it arrives.
struct DdpPiece {
  std::uint8_t sequence = 0;
  bool push = false;
  std::uint8_t dataType = 0;
  std::size_t offset = 0;
  std::span<const std::uint8_t> data;
};
/// Reads a data packet for the default output or all; anything else is nothing.
std::optional<DdpPiece> readDdpData(std::span<const std::uint8_t> packet);

}  // namespace chispa::link
