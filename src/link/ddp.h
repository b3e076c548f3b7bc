// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <cstdint>
#include <span>

namespace chispa::link {

/// The open Distributed Display Protocol: one row of bytes, sent in pieces with their place in it.
inline constexpr int kDdpPort = 4048;
inline constexpr std::size_t kDdpHeaderSize = 10;
/// Most data of a packet, so that it fits into an Ethernet frame.
inline constexpr std::size_t kDdpMostData = 1440;

/// Header of a data packet: version 1, default output, data type not said; `push` on the last packet of a frame.
struct DdpHeader {
  /// 1–15; 0 is not counted.
  std::uint8_t sequence = 0;
  bool push = false;
  std::uint32_t offset = 0;
  std::uint16_t length = 0;
};
void writeDdpHeader(std::span<std::uint8_t> packet, const DdpHeader& header);

}  // namespace chispa::link
