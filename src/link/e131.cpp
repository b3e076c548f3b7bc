// SPDX-License-Identifier: GPL-3.0-or-later
#include "link/e131.h"

#include <algorithm>
#include <random>

#include "link/bytes.h"

namespace chispa::link {
namespace {

constexpr std::size_t kSequenceAt = 111;
constexpr std::size_t kOptionsAt = 112;
constexpr std::size_t kValuesAt = 126;
constexpr std::uint8_t kTerminatedBit = 0x40;

/// Flags 0x7 in the top four bits, the length of the rest of the packet from `at` on in the others.
void putFlagsAndLength(std::span<std::uint8_t> packet, std::size_t at) {
  putBig16(packet, at, static_cast<std::uint16_t>(0x7000 | (packet.size() - at)));
}

/// The root layer that all E1.31 packets begin with (§5).
void putRootLayer(std::span<std::uint8_t> packet, const Cid& cid, std::uint32_t vector) {
  std::fill(packet.begin(), packet.end(), std::uint8_t{0});
  putBig16(packet, 0, 0x0010);
  putText(packet, 4, "ASC-E1.17");
  putFlagsAndLength(packet, 16);
  putBig32(packet, 18, vector);
  std::copy(cid.begin(), cid.end(), packet.begin() + 22);
}

}  // namespace

void writeE131Header(std::span<std::uint8_t> packet, const E131Source& source, int universe) {
  putRootLayer(packet, source.cid, 0x00000004);
  // Framing layer.
  putFlagsAndLength(packet, 38);
  putBig32(packet, 40, 0x00000002);
  putText(packet, 44, source.name.substr(0, 63));
  packet[108] = source.priority;
  putBig16(packet, 113, static_cast<std::uint16_t>(universe));
  // DMP layer.
  putFlagsAndLength(packet, 115);
  packet[117] = 0x02;
  packet[118] = 0xa1;
  putBig16(packet, 121, 1);
  putBig16(packet, 123, 513);
}

void setE131SyncAddress(std::span<std::uint8_t> packet, int universe) { putBig16(packet, 109, static_cast<std::uint16_t>(universe)); }

void writeE131Sync(std::span<std::uint8_t> packet, const E131Source& source, int universe) {
  putRootLayer(packet, source.cid, 0x00000008);
  putFlagsAndLength(packet, 38);
  putBig32(packet, 40, 0x00000001);
  putBig16(packet, 45, static_cast<std::uint16_t>(universe));
}

void setE131SyncSequence(std::span<std::uint8_t> packet, std::uint8_t sequence) { packet[44] = sequence; }

Endpoint e131Group(int universe, int port) {
  return {0xefff0000u | static_cast<std::uint32_t>(universe & 0xffff), static_cast<std::uint16_t>(port)};
}

void setE131Sequence(std::span<std::uint8_t> packet, std::uint8_t sequence) { packet[kSequenceAt] = sequence; }

void setE131Terminated(std::span<std::uint8_t> packet, bool terminated) {
  packet[kOptionsAt] = terminated ? kTerminatedBit : 0;
}

std::span<std::uint8_t> e131Values(std::span<std::uint8_t> packet) { return packet.subspan(kValuesAt, 512); }

Cid randomCid() {
  std::random_device device;
  Cid cid;
  for (auto& byte : cid) byte = static_cast<std::uint8_t>(device());
  cid[6] = static_cast<std::uint8_t>((cid[6] & 0x0f) | 0x40);
  cid[8] = static_cast<std::uint8_t>((cid[8] & 0x3f) | 0x80);
  return cid;
}

}  // namespace chispa::link
