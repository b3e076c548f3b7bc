// SPDX-License-Identifier: GPL-3.0-or-later
#include "link/ddp.h"

#include "link/bytes.h"

namespace chispa::link {
namespace {

constexpr std::uint8_t kVersion1 = 0x40;
constexpr std::uint8_t kVersionMask = 0xc0;
constexpr std::uint8_t kTimeCode = 0x10;
constexpr std::uint8_t kReply = 0x04;
constexpr std::uint8_t kQuery = 0x02;
constexpr std::uint8_t kStorage = 0x08;
constexpr std::uint8_t kPush = 0x01;
constexpr std::uint8_t kDefaultOutput = 1;
constexpr std::uint8_t kAllOutputs = 255;

/// The bytes behind the header, if their number is what it says.
std::optional<std::span<const std::uint8_t>> bodyOf(std::span<const std::uint8_t> packet) {
  if (packet.size() < kDdpHeaderSize || (packet[0] & kVersionMask) != kVersion1) return std::nullopt;
  const std::size_t head = kDdpHeaderSize + (packet[0] & kTimeCode ? 4 : 0);
  const std::size_t length = big16(packet, 8);
  if (packet.size() != head + length) return std::nullopt;
  return packet.subspan(head);
}

}  // namespace

std::uint8_t ddpDataType(RowFormat format) {
  if (format.channels != 3 && format.channels != 4) return 0;
  const int kind = format.channels == 3 ? 1 : 3;
  const int size = format.bits == 16 ? 4 : 3;
  return static_cast<std::uint8_t>(kind << 3 | size);
}

void writeDdpHeader(std::span<std::uint8_t> packet, const DdpHeader& header) {
  packet[0] = header.push ? kVersion1 | kPush : kVersion1;
  packet[1] = header.sequence & 0x0f;
  packet[2] = header.dataType;
  packet[3] = kDefaultOutput;
  putBig32(packet, 4, header.offset);
  putBig16(packet, 8, header.length);
}

void writeDdpQuery(std::span<std::uint8_t> packet, DdpQuery what) {
  writeDdpHeader(packet, {});
  packet[0] = kVersion1 | kQuery | kPush;
  packet[3] = static_cast<std::uint8_t>(what);
}

std::optional<std::string> readDdpReply(std::span<const std::uint8_t> packet, DdpQuery what) {
  const auto body = bodyOf(packet);
  if (!body || !(packet[0] & kReply) || packet[3] != static_cast<std::uint8_t>(what)) return std::nullopt;
  return std::string(body->begin(), body->end());
}

std::optional<DdpPiece> readDdpData(std::span<const std::uint8_t> packet) {
  const auto body = bodyOf(packet);
  if (!body || (packet[0] & (kReply | kQuery | kStorage)) != 0) return std::nullopt;
  if (packet[3] != kDefaultOutput && packet[3] != kAllOutputs) return std::nullopt;
  constexpr std::size_t kMaxRow = std::size_t{4} << 20;
  const std::size_t offset = big32(packet, 4);
  if (offset + body->size() > kMaxRow) return std::nullopt;
  return DdpPiece{static_cast<std::uint8_t>(packet[1] & 0x0f), (packet[0] & kPush) != 0, packet[2], offset,
                  *body};
}

}  // namespace chispa::link
