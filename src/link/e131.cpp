// SPDX-License-Identifier: GPL-3.0-or-later
#include "link/e131.h"

#include <algorithm>
#include <random>

#include "link/bytes.h"
#include "link/packetreader.h"

namespace chispa::link {
namespace {

constexpr std::size_t kSequenceAt = 111;
constexpr std::size_t kOptionsAt = 112;
constexpr std::size_t kValuesAt = 126;
constexpr std::uint8_t kPreviewBit = 0x80;
constexpr std::uint8_t kTerminatedBit = 0x40;

// Vectors of §5.5, §6.2.1, §6.3.1, §6.4.1 and §8.2.
constexpr std::uint32_t kDataVector = 4;
constexpr std::uint32_t kExtendedVector = 8;
constexpr std::uint32_t kDataPacketVector = 2;
constexpr std::uint32_t kSyncVector = 1;
constexpr std::uint32_t kDiscoveryVector = 2;
constexpr std::uint32_t kUniverseListVector = 1;

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
  putRootLayer(packet, source.cid, kDataVector);
  // Framing layer.
  putFlagsAndLength(packet, 38);
  putBig32(packet, 40, kDataPacketVector);
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

void setE131SyncAddress(std::span<std::uint8_t> packet, int universe) {
  putBig16(packet, 109, static_cast<std::uint16_t>(universe));
}

void writeE131Sync(std::span<std::uint8_t> packet, const E131Source& source, int universe) {
  putRootLayer(packet, source.cid, kExtendedVector);
  putFlagsAndLength(packet, 38);
  putBig32(packet, 40, kSyncVector);
  putBig16(packet, 45, static_cast<std::uint16_t>(universe));
}

void setE131SyncSequence(std::span<std::uint8_t> packet, std::uint8_t sequence) {
  packet[44] = sequence;
}

std::vector<std::uint8_t> e131Discovery(const E131Source& source, int page, int lastPage,
                                        std::span<const int> universes) {
  std::vector<std::uint8_t> packet(120 + 2 * universes.size());
  putRootLayer(packet, source.cid, kExtendedVector);
  putFlagsAndLength(packet, 38);
  putBig32(packet, 40, kDiscoveryVector);
  putText(packet, 44, source.name.substr(0, 63));
  putFlagsAndLength(packet, 112);
  putBig32(packet, 114, kUniverseListVector);
  packet[118] = static_cast<std::uint8_t>(page);
  packet[119] = static_cast<std::uint8_t>(lastPage);
  for (std::size_t i = 0; i < universes.size(); ++i)
    putBig16(packet, 120 + 2 * i, static_cast<std::uint16_t>(universes[i]));
  return packet;
}

namespace {

/// A PDU's flags and length, counted from its own first byte: 0x7 and all that is left.
void expectLayer(PacketReader& in, bool& good) {
  const std::size_t from = in.left();
  const std::uint32_t word = in.number(2);
  good = good && word >> 12 == 7 && (word & 0xfff) == from;
}

/// Everything in front of the framing layer's own fields; the CID, or nothing.
std::optional<Cid> readLayers(PacketReader& in, std::uint32_t root, std::uint32_t framing) {
  bool good = true;
  in.expect(2, 0x0010);
  in.expect(2, 0x0000);
  in.expectText("ASC-E1.17", 12);
  expectLayer(in, good);
  in.expect(4, root);
  Cid cid{};
  std::ranges::copy(in.take(cid.size()), cid.begin());
  expectLayer(in, good);
  in.expect(4, framing);
  return good && in.good() ? std::optional(cid) : std::nullopt;
}

}  // namespace

std::optional<E131Data> readE131Data(std::span<const std::uint8_t> packet) {
  PacketReader in(packet);
  const auto cid = readLayers(in, kDataVector, kDataPacketVector);
  if (!cid) return std::nullopt;
  E131Data data;
  data.cid = *cid;
  data.name = in.text(64);
  data.priority = static_cast<int>(in.number(1));
  data.syncUniverse = static_cast<int>(in.number(2));
  data.sequence = static_cast<std::uint8_t>(in.number(1));
  const auto options = in.number(1);
  data.isPreview = (options & kPreviewBit) != 0;
  data.isTerminated = (options & kTerminatedBit) != 0;
  data.universe = static_cast<int>(in.number(2));
  bool good = true;
  expectLayer(in, good);
  in.expect(1, 0x02);
  in.expect(1, 0xa1);
  in.expect(2, 0);
  in.expect(2, 1);
  const auto count = in.number(2);
  data.startCode = static_cast<std::uint8_t>(in.number(1));
  if (data.startCode != 0 && data.startCode != kE131PrioritiesCode) return std::nullopt;
  if (!good || !in.good() || count < 1 || count > 513 || in.left() != count - 1) return std::nullopt;
  if (data.universe < 1 || data.universe > 63'999 || data.priority > 200) return std::nullopt;
  data.values = in.take(count - 1);
  return data;
}

std::optional<E131Sync> readE131Sync(std::span<const std::uint8_t> packet) {
  PacketReader in(packet);
  const auto cid = readLayers(in, kExtendedVector, kSyncVector);
  if (!cid) return std::nullopt;
  E131Sync sync{*cid, static_cast<std::uint8_t>(in.number(1)), static_cast<int>(in.number(2))};
  in.take(2);
  return in.good() && in.left() == 0 && sync.universe >= 1 && sync.universe <= 63'999 ? std::optional(sync)
                                                                                      : std::nullopt;
}

std::optional<E131DiscoveryPage> readE131Discovery(std::span<const std::uint8_t> packet) {
  PacketReader in(packet);
  const auto cid = readLayers(in, kExtendedVector, kDiscoveryVector);
  if (!cid) return std::nullopt;
  E131DiscoveryPage page;
  page.cid = *cid;
  page.name = in.text(64);
  in.take(4);
  bool good = true;
  expectLayer(in, good);
  in.expect(4, kUniverseListVector);
  page.page = static_cast<int>(in.number(1));
  page.lastPage = static_cast<int>(in.number(1));
  if (!good || !in.good() || in.left() % 2 != 0 || in.left() > 2 * kE131DiscoveryPerPage ||
      page.page > page.lastPage)
    return std::nullopt;
  while (in.left() > 0) page.universes.push_back(static_cast<int>(in.number(2)));
  return page;
}

Endpoint e131Group(int universe, int port) {
  return {0xefff0000u | static_cast<std::uint32_t>(universe & 0xffff), static_cast<std::uint16_t>(port)};
}

void setE131Sequence(std::span<std::uint8_t> packet, std::uint8_t sequence) {
  packet[kSequenceAt] = sequence;
}

void setE131Terminated(std::span<std::uint8_t> packet, bool terminated) {
  packet[kOptionsAt] = terminated ? kTerminatedBit : 0;
}

std::span<std::uint8_t> e131Values(std::span<std::uint8_t> packet) {
  return packet.subspan(kValuesAt, 512);
}

Cid randomCid() {
  std::random_device device;
  Cid cid;
  for (auto& byte : cid) byte = static_cast<std::uint8_t>(device());
  cid[6] = static_cast<std::uint8_t>((cid[6] & 0x0f) | 0x40);
  cid[8] = static_cast<std::uint8_t>((cid[8] & 0x3f) | 0x80);
  return cid;
}

}  // namespace chispa::link
