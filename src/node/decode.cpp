// SPDX-License-Identifier: GPL-3.0-or-later
#include "node/decode.h"

#include <algorithm>
#include <cstring>

#include <nlohmann/json.hpp>

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
  if (!in.good() || net > 127 || count < 2 || count > 512 || count % 2 != 0 || in.left() < count)
    return std::nullopt;
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

namespace {

std::vector<std::uint8_t> artPollReply(const std::array<std::uint8_t, 4>& address, const std::string& name,
                                       std::span<const int> portAddresses, std::size_t bindIndex) {
  std::vector<std::uint8_t> packet(239, 0);
  const auto put = [&](std::size_t at, const std::string& text, std::size_t most) {
    std::copy_n(text.begin(), std::min(text.size(), most - 1),
                packet.begin() + static_cast<std::ptrdiff_t>(at));
  };
  put(0, "Art-Net", 8);
  packet[9] = 0x21;
  std::ranges::copy(address, packet.begin() + 10);
  packet[14] = 0x36;  // port 0x1936, low byte first
  packet[15] = 0x19;
  const int first = portAddresses.empty() ? 0 : portAddresses.front();
  packet[18] = static_cast<std::uint8_t>(first >> 8 & 0x7f);
  packet[19] = static_cast<std::uint8_t>(first >> 4 & 0x0f);
  put(26, name, 18);
  put(44, name, 64);
  put(108, "#0001 [0000] Ready", 64);
  packet[173] = static_cast<std::uint8_t>(portAddresses.size());
  for (std::size_t i = 0; i < portAddresses.size(); ++i) {
    packet[174 + i] = 0x80;  // output
    packet[182 + i] = 0x80;  // data is being sent
    packet[190 + i] = static_cast<std::uint8_t>(portAddresses[i] & 0x0f);
  }
  std::ranges::copy(address, packet.begin() + 207);
  packet[211] = static_cast<std::uint8_t>(bindIndex);
  packet[212] = 0x08;  // 15-bit Port-Addresses
  return packet;
}

}  // namespace

std::vector<std::vector<std::uint8_t>> artPollReplies(const std::array<std::uint8_t, 4>& address,
                                                      const std::string& name,
                                                      const std::vector<int>& portAddresses) {
  constexpr std::size_t kPerReply = 4;
  std::vector<std::vector<std::uint8_t>> replies;
  for (std::size_t at = 0; at == 0 || at < portAddresses.size(); at += kPerReply) {
    const auto here = std::span(portAddresses).subspan(at);
    replies.push_back(
        artPollReply(address, name, here.first(std::min(kPerReply, here.size())), at / kPerReply + 1));
  }
  return replies;
}

std::optional<ArtAddressOrder> readArtAddress(std::span<const std::uint8_t> bytes) {
  Cursor in(bytes);
  in.expectText("Art-Net\0", 8);
  in.expect(2, 0x0060);  // OpAddress, low byte first
  if (in.number(2) < 14) return std::nullopt;
  constexpr std::uint32_t kProgramme = 0x80;
  ArtAddressOrder order;
  const auto net = in.number(1);
  order.bindIndex = std::max(1, static_cast<int>(in.number(1)));
  const auto text = [&](std::size_t size) {
    const auto field = in.take(size);
    return std::string(field.begin(), std::find(field.begin(), field.end(), std::uint8_t{0}));
  };
  order.shortName = text(18);
  order.longName = text(64);
  in.take(4);  // inputs
  const auto outputs = in.take(4);
  const auto subNet = in.number(1);
  in.take(2);
  if (!in.good()) return std::nullopt;
  for (std::size_t i = 0; i < 4; ++i)
    if (outputs[i] & kProgramme)
      order.outputs[i] = static_cast<int>((net & 0x7f) << 8 | (subNet & 0x0f) << 4 | (outputs[i] & 0x0fu));
  return order;
}

bool isDdpStatusQuery(std::span<const std::uint8_t> bytes) {
  return bytes.size() >= 10 && bytes[0] >> 6 == 1 && (bytes[0] & 0x02) && !(bytes[0] & 0x04) &&
         bytes[3] == 251;
}

std::vector<std::uint8_t> ddpStatusReply(const std::string& name) {
  const std::string json =
      nlohmann::json{{"status", {{"man", "Chispa"}, {"mod", name}, {"ver", "1"}, {"push", true}}}}.dump(
          -1, ' ', false, nlohmann::json::error_handler_t::replace);
  std::vector<std::uint8_t> packet(10 + json.size(), 0);
  packet[0] = 0x45;  // version 1, reply, push
  packet[3] = 251;
  packet[8] = static_cast<std::uint8_t>(json.size() >> 8);
  packet[9] = static_cast<std::uint8_t>(json.size() & 255);
  std::copy(json.begin(), json.end(), packet.begin() + 10);
  return packet;
}

std::optional<OpcMessage> readOpc(std::span<const std::uint8_t> stream) {
  Cursor in(stream);
  OpcMessage message;
  message.channel = static_cast<int>(in.number(1));
  message.command = static_cast<int>(in.number(1));
  const auto length = in.number(2);
  message.data = in.take(length);
  message.size = 4 + length;
  return in.good() ? std::optional(message) : std::nullopt;
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
  constexpr std::size_t kMaxRow = 4 << 20;
  if (!in.good() || !isData || (output != 1 && output != 255) || in.left() != length ||
      piece.offset + length > kMaxRow)
    return std::nullopt;
  piece.push = (flags & 1) != 0;
  piece.data = in.take(length);
  return piece;
}

}  // namespace chispa::node
