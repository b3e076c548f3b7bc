// SPDX-License-Identifier: GPL-3.0-or-later
#include "node/decode.h"

#include <algorithm>
#include <cstring>

namespace chispa::node {
namespace {

/// Reads a packet from front to back; once something does not fit, everything after is nothing.
class Cursor {
 public:
  explicit Cursor(std::span<const std::uint8_t> bytes) : left_(bytes) {}

  bool good() const { return good_; }
  std::size_t left() const { return left_.size(); }

  std::span<const std::uint8_t> take(std::size_t count) {
    if (!good_ || left_.size() < count) {
      good_ = false;
      return {};
    }
    const auto taken = left_.first(count);
    left_ = left_.subspan(count);
    return taken;
  }
  std::uint32_t number(std::size_t bytes) {
    std::uint32_t value = 0;
    for (const std::uint8_t byte : take(bytes)) value = value << 8 | byte;
    return value;
  }
  void expect(std::size_t bytes, std::uint32_t wanted) { good_ = number(bytes) == wanted && good_; }
  void expectText(const char* text, std::size_t length) {
    const auto found = take(length);
    good_ = good_ && std::memcmp(found.data(), text, length) == 0;
  }
  /// A PDU's flags and length, counted from its own first byte: 0x7 and all that is left.
  void expectLayer() {
    const std::size_t from = left_.size();
    const std::uint32_t word = number(2);
    good_ = good_ && word >> 12 == 7 && (word & 0xfff) == from;
  }

 private:
  std::span<const std::uint8_t> left_;
  bool good_ = true;
};

}  // namespace

std::optional<DataPacket> readE131(std::span<const std::uint8_t> bytes) {
  Cursor in(bytes);
  DataPacket packet;
  in.expect(2, 0x0010);  // preamble
  in.expect(2, 0x0000);  // post-amble
  in.expectText("ASC-E1.17\0\0", 12);
  in.expectLayer();
  in.expect(4, 4);  // VECTOR_ROOT_E131_DATA
  in.take(16);      // CID
  in.expectLayer();
  in.expect(4, 2);  // VECTOR_E131_DATA_PACKET
  const auto name = in.take(64);
  packet.sourceName.assign(name.begin(), std::find(name.begin(), name.end(), std::uint8_t{0}));
  packet.priority = static_cast<int>(in.number(1));
  in.take(2);  // synchronisation address
  packet.sequence = static_cast<std::uint8_t>(in.number(1));
  packet.terminated = (in.number(1) & 0x40) != 0;
  packet.universe = static_cast<int>(in.number(2));
  in.expectLayer();
  in.expect(1, 2);     // VECTOR_DMP_SET_PROPERTY
  in.expect(1, 0xa1);  // address and data type
  in.expect(2, 0);     // first property address
  in.expect(2, 1);     // address increment
  const auto count = in.number(2);
  in.expect(1, 0);  // start code of plain data
  if (!in.good() || count < 1 || count > 513 || in.left() != count - 1) return std::nullopt;
  if (packet.universe < 1 || packet.universe > 63999 || packet.priority > 200) return std::nullopt;
  packet.count = static_cast<int>(count) - 1;
  std::ranges::copy(in.take(count - 1), packet.values.begin());
  return packet;
}

std::optional<DataPacket> readArtDmx(std::span<const std::uint8_t> bytes) {
  Cursor in(bytes);
  DataPacket packet;
  in.expectText("Art-Net\0", 8);
  in.expect(2, 0x0050);  // OpDmx, low byte first
  if (in.number(2) < 14) return std::nullopt;
  packet.sequence = static_cast<std::uint8_t>(in.number(1));
  in.take(1);  // physical
  const auto subUni = in.number(1);
  const auto net = in.number(1);
  packet.universe = static_cast<int>(net << 8 | subUni);
  const auto count = in.number(2);
  if (!in.good() || net > 127 || count < 2 || count > 512 || count % 2 != 0 || in.left() < count) return std::nullopt;
  packet.count = static_cast<int>(count);
  std::ranges::copy(in.take(count), packet.values.begin());
  return packet;
}

bool isArtPoll(std::span<const std::uint8_t> bytes) {
  Cursor in(bytes);
  in.expectText("Art-Net\0", 8);
  in.expect(2, 0x0020);  // OpPoll, low byte first
  return in.number(2) >= 14 && in.good();
}

std::vector<std::uint8_t> artPollReply(const std::array<std::uint8_t, 4>& address, const std::string& name, int ports, int portAddress) {
  std::vector<std::uint8_t> packet(239, 0);
  const auto put = [&](std::size_t at, const std::string& text, std::size_t most) { std::copy_n(text.begin(), std::min(text.size(), most - 1), packet.begin() + static_cast<std::ptrdiff_t>(at)); };
  put(0, "Art-Net", 8);
  packet[9] = 0x21;
  std::ranges::copy(address, packet.begin() + 10);
  packet[14] = 0x36;  // port 0x1936, low byte first
  packet[15] = 0x19;
  packet[18] = static_cast<std::uint8_t>(portAddress >> 8 & 0x7f);
  packet[19] = static_cast<std::uint8_t>(portAddress >> 4 & 0x0f);
  put(26, name, 18);
  put(44, name, 64);
  put(108, "#0001 [0000] Ready", 64);
  // A reply speaks of four ports at most.
  const int here = std::min(ports, 4);
  packet[173] = static_cast<std::uint8_t>(here);
  for (int i = 0; i < here; ++i) {
    const auto at = static_cast<std::size_t>(i);
    packet[174 + at] = 0x80;  // output
    packet[182 + at] = 0x80;  // data is being sent
    packet[190 + at] = static_cast<std::uint8_t>((portAddress + i) & 0x0f);
  }
  std::ranges::copy(address, packet.begin() + 207);
  packet[211] = 1;
  packet[212] = 0x08;  // 15-bit Port-Addresses
  return packet;
}

std::optional<DdpPiece> readDdp(std::span<const std::uint8_t> bytes) {
  Cursor in(bytes);
  const auto flags = in.number(1);
  DdpPiece piece;
  piece.sequence = static_cast<std::uint8_t>(in.number(1) & 0x0f);
  in.take(1);  // data type
  const auto output = in.number(1);
  piece.offset = in.number(4);
  const auto length = in.number(2);
  if (flags & 0x10) in.take(4);  // time code
  const bool isData = flags >> 6 == 1 && (flags & 0x0e) == 0;
  constexpr std::size_t kMostRow = 4 << 20;
  if (!in.good() || !isData || (output != 1 && output != 255) || in.left() != length || piece.offset + length > kMostRow) return std::nullopt;
  piece.push = (flags & 1) != 0;
  piece.data = in.take(length);
  return piece;
}

}  // namespace chispa::node
