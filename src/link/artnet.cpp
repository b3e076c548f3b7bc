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

void writeArtPoll(std::span<std::uint8_t> packet) {
  std::fill(packet.begin(), packet.end(), std::uint8_t{0});
  putText(packet, 0, "Art-Net");
  packet[9] = 0x20;
  putBig16(packet, 10, 14);
}

std::optional<ArtPollReply> readArtPollReply(std::span<const std::uint8_t> packet) {
  constexpr std::size_t kLeast = 207;
  constexpr std::array<std::uint8_t, 10> kHead = {'A', 'r', 't', '-', 'N', 'e', 't', 0, 0x00, 0x21};
  if (packet.size() < kLeast || !std::equal(kHead.begin(), kHead.end(), packet.begin())) return std::nullopt;
  const auto textAt = [&](std::size_t at, std::size_t most) {
    const auto field = packet.subspan(at, most);
    return std::string(field.begin(), std::find(field.begin(), field.end(), std::uint8_t{0}));
  };
  ArtPollReply reply;
  reply.shortName = textAt(26, 18);
  reply.longName = textAt(44, 64);
  reply.ports = packet[172] << 8 | packet[173];
  if (reply.ports > 4) return std::nullopt;
  for (std::size_t i = 0; i < 4; ++i) reply.portAddresses[i] = (packet[18] & 0x7f) << 8 | (packet[19] & 0x0f) << 4 | (packet[190 + i] & 0x0f);
  return reply;
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
