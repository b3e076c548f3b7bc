// SPDX-License-Identifier: GPL-3.0-or-later
#include "link/ddp.h"

#include "link/bytes.h"

namespace chispa::link {

void writeDdpHeader(std::span<std::uint8_t> packet, const DdpHeader& header) {
  constexpr std::uint8_t kVersion1 = 0x40;
  constexpr std::uint8_t kPush = 0x01;
  constexpr std::uint8_t kDefaultOutput = 1;
  packet[0] = header.push ? kVersion1 | kPush : kVersion1;
  packet[1] = header.sequence & 0x0f;
  packet[2] = 0;
  packet[3] = kDefaultOutput;
  putBig32(packet, 4, header.offset);
  putBig16(packet, 8, header.length);
}

}  // namespace chispa::link
