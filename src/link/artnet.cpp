// SPDX-License-Identifier: GPL-3.0-or-later
#include "link/artnet.h"

#include <algorithm>

#include "link/bytes.h"
#include "link/packetreader.h"

namespace chispa::link {

namespace {

/// The head that all packets but the reply share: name, OpCode, version; good only for `code`.
bool readHead(PacketReader& in, std::uint8_t code) {
  in.expectText("Art-Net", 8);
  in.expect(1, 0);
  in.expect(1, code);
  return in.number(2) >= 14 && in.good();
}

void putHead(std::span<std::uint8_t> packet, std::uint8_t code) {
  std::fill(packet.begin(), packet.end(), std::uint8_t{0});
  putText(packet, 0, "Art-Net");
  // The OpCode alone goes low byte first.
  packet[9] = code;
  putBig16(packet, 10, 14);
}

}  // namespace

void writeArtDmxHeader(std::span<std::uint8_t> packet, int portAddress) {
  putHead(packet, 0x50);
  packet[14] = static_cast<std::uint8_t>(portAddress & 0xff);
  packet[15] = static_cast<std::uint8_t>(portAddress >> 8 & 0x7f);
  putBig16(packet, 16, 512);
}

void writeArtPoll(std::span<std::uint8_t> packet) {
  putHead(packet, 0x20);
}

std::optional<ArtPollReply> readArtPollReply(std::span<const std::uint8_t> packet) {
  PacketReader in(packet);
  in.expectText("Art-Net", 8);
  in.expect(2, 0x0021);
  ArtPollReply reply;
  std::ranges::copy(in.take(4), reply.address.begin());
  in.take(4);
  const auto net = static_cast<int>(in.number(1) & 0x7f);
  const auto subNet = static_cast<int>(in.number(1) & 0x0f);
  in.take(6);
  reply.shortName = in.text(18);
  reply.longName = in.text(64);
  in.take(64);
  reply.ports = static_cast<int>(in.number(2));
  in.take(4 + 4 + 4 + 4);
  for (int& address : reply.portAddresses)
    address = net << 8 | subNet << 4 | static_cast<int>(in.number(1) & 0x0f);
  constexpr std::size_t kLeast = 207;
  if (!in.good() || packet.size() < kLeast || reply.ports > 4) return std::nullopt;
  in.take(13);  // up to the MAC address
  in.take(4);   // bind address
  // Older nodes end before their bind index.
  const auto bind = static_cast<int>(in.number(1));
  reply.bindIndex = in.good() ? bind : 0;
  return reply;
}

void writeArtPollReply(std::span<std::uint8_t> packet, const std::array<std::uint8_t, 4>& address,
                       const std::string& name) {
  std::fill(packet.begin(), packet.end(), std::uint8_t{0});
  putText(packet, 0, "Art-Net");
  packet[9] = 0x21;
  std::ranges::copy(address, packet.begin() + 10);
  packet[14] = kArtNetPort & 0xff;
  packet[15] = kArtNetPort >> 8;
  putText(packet, 26, name.substr(0, 17));
  putText(packet, 44, name.substr(0, 63));
  putText(packet, 108, "#0001 [0000] Ready");
  packet[200] = 0x01;  // StController
  std::ranges::copy(address, packet.begin() + 207);
  packet[211] = 1;
  packet[212] = 0x08;  // 15-bit Port-Addresses
}

bool isArtPoll(std::span<const std::uint8_t> packet) {
  PacketReader in(packet);
  return readHead(in, 0x20);
}

bool isArtSync(std::span<const std::uint8_t> packet) {
  PacketReader in(packet);
  return readHead(in, 0x52);
}

Outcome writeArtAddress(std::span<std::uint8_t> packet, const ArtAddress& wanted) {
  constexpr std::uint8_t kKeep = 0x7f;
  constexpr std::uint8_t kProgramme = 0x80;
  std::optional<int> block;
  for (const auto& output : wanted.outputs) {
    if (!output) continue;
    if (block && *block != *output >> 4)
      return Failure{sentence("Port-Addresses %1 … and %2 lie in different sub-nets; four ports of an "
                              "Art-Net node share one.",
                              *block << 4, *output),
                     "", "Number the four ports within one block of 16 universes."};
    block = *output >> 4;
  }
  putHead(packet, 0x60);
  packet[12] = block ? static_cast<std::uint8_t>(kProgramme | *block >> 4) : kKeep;
  packet[13] = static_cast<std::uint8_t>(wanted.bindIndex);
  putText(packet, 14, wanted.shortName.substr(0, 17));
  putText(packet, 32, wanted.longName.substr(0, 63));
  for (std::size_t i = 0; i < 4; ++i) {
    packet[96 + i] = kKeep;
    packet[100 + i] =
        wanted.outputs[i] ? static_cast<std::uint8_t>(kProgramme | (*wanted.outputs[i] & 0x0f)) : kKeep;
  }
  packet[104] = block ? static_cast<std::uint8_t>(kProgramme | (*block & 0x0f)) : kKeep;
  packet[105] = 0xff;  // AcnPriority: no change
  packet[106] = 0;     // AcNone
  return Done{};
}

std::optional<ArtDmx> readArtDmx(std::span<const std::uint8_t> packet) {
  PacketReader in(packet);
  if (!readHead(in, 0x50)) return std::nullopt;
  ArtDmx data;
  data.sequence = static_cast<std::uint8_t>(in.number(1));
  in.take(1);
  const auto low = static_cast<int>(in.number(1));
  const auto net = static_cast<int>(in.number(1));
  const auto count = in.number(2);
  if (!in.good() || net > 127 || count < 2 || count > 512 || count % 2 != 0 || in.left() < count)
    return std::nullopt;
  data.portAddress = net << 8 | low;
  data.values = in.take(count);
  return data;
}

void writeArtSync(std::span<std::uint8_t> packet) {
  putHead(packet, 0x52);
}

void setArtDmxSequence(std::span<std::uint8_t> packet, std::uint8_t sequence) {
  packet[12] = sequence;
}

std::span<std::uint8_t> artDmxValues(std::span<std::uint8_t> packet) {
  return packet.subspan(18, 512);
}

}  // namespace chispa::link
