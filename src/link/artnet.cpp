// SPDX-License-Identifier: GPL-3.0-or-later
#include "link/artnet.h"

#include <algorithm>

#include "link/bytes.h"

namespace chispa::link {

void writeArtDmxHeader(std::span<std::uint8_t> packet, int portAddress) {
  std::fill(packet.begin(), packet.end(), std::uint8_t{0});
  putText(packet, 0, "Art-Net");
  // The OpCode alone goes low byte first.
  packet[9] = 0x50;
  putBig16(packet, 10, 14);
  packet[14] = static_cast<std::uint8_t>(portAddress & 0xff);
  packet[15] = static_cast<std::uint8_t>(portAddress >> 8 & 0x7f);
  putBig16(packet, 16, 512);
}

void writeArtSync(std::span<std::uint8_t> packet) {
  std::fill(packet.begin(), packet.end(), std::uint8_t{0});
  putText(packet, 0, "Art-Net");
  packet[9] = 0x52;
  putBig16(packet, 10, 14);
}

void setArtDmxSequence(std::span<std::uint8_t> packet, std::uint8_t sequence) { packet[12] = sequence; }

std::span<std::uint8_t> artDmxValues(std::span<std::uint8_t> packet) { return packet.subspan(18, 512); }

}  // namespace chispa::link
