// SPDX-License-Identifier: GPL-3.0-or-later
#include <array>
#include <cstdio>
#include <cstring>
#include <fstream>
#include <sstream>

#include "capture.h"
#include "carousel/carousel.h"
#include "listener.h"
#include "temporary.h"
#include <gtest/gtest.h>

#include "core/render/renderer.h"
#include "link/artnet.h"
#include "link/sender.h"

namespace chispa::link {
namespace {

using test::linesOf;
using test::writeCapture;

/// Three frames of the demo's controller `index`, and the end of its streams, as they arrive at a socket.
std::vector<std::string> demoPackets(std::size_t index, const Listener& listener,
                                     const std::string& address) {
  Show show = demo::carousel();
  Controller controller = *show.controllers[index];
  controller.host = address;
  controller.udpPort = listener.port();
  put(show.controllers, controller);
  const auto compiled = compile(show);
  std::vector<int> universes;
  std::size_t first = 0;
  for (const PatchUniverse& used : compiled->patch.universes) {
    if (used.controller < static_cast<int>(index)) ++first;
    if (used.controller == static_cast<int>(index)) universes.push_back(used.universe);
  }
  E131Source source;
  source.cid = randomCid();
  auto sender = ControllerSender::open(controller, universes, source);
  EXPECT_TRUE(sender);
  Renderer renderer;
  renderer.prepare(*compiled);
  PixelFrame frame;
  frame.resize(static_cast<std::size_t>(compiled->map->count()));
  std::vector<std::uint8_t> values(compiled->packer->bufferSize());
  for (int i = 0; i < 3; ++i) {
    const Micros t = Micros(20'000'000) + Micros(25'000) * i;
    renderer.render(compiled->scores[0], t, frame);
    compiled->packer->pack(frame, ditherFrame(static_cast<std::uint64_t>(i), 40), 1, values);
    (*sender)->send(std::span(values).subspan(first * 512, universes.size() * 512), t, true);
  }
  (*sender)->terminate(std::chrono::nanoseconds(0));
  return listener.take();
}

/// Every line is the dissection of one packet: universe, sequence, property values or length.
TEST(Tshark, DecodesTheDemosE131WithoutAMalformedPacket) {
  if (linesOf("tshark --version 2>/dev/null").empty()) GTEST_SKIP() << "tshark is not installed";
  const test::TemporaryFolder folder;
  const std::string address = test::loopbackAddress(1);
  const Listener listener(address);
  const auto packets = demoPackets(0, listener, address);
  ASSERT_EQ(packets.size(), 5u * 6u) << "five universes, three frames and three ends";
  writeCapture(folder.path() / "e131.pcap", packets, 5568);
  const auto decoded =
      linesOf("tshark -r " + (folder.path() / "e131.pcap").string() +
              " --enable-heuristic acn -o acn.dmx_enable:TRUE -T fields -e frame.protocols -e "
              "acn.dmx.universe -e acn.dmx.seq_number "
              "-e acn.dmx.source_name -e acn.dmx.priority -e _ws.malformed -e _ws.expert 2>/dev/null");
  ASSERT_EQ(decoded.size(), packets.size());
  std::map<std::string, int> perUniverse;
  for (const std::string& line : decoded) {
    std::istringstream fields(line);
    std::string protocol, universe, sequence, name, priority, rest;
    fields >> protocol >> universe >> sequence >> name >> priority;
    EXPECT_NE(protocol.find(":acn"), std::string::npos) << line;
    EXPECT_EQ(name, "Chispa");
    EXPECT_EQ(priority, "100");
    EXPECT_FALSE(fields >> rest) << "malformed or doubtful: " << line;
    EXPECT_EQ(sequence, std::to_string(perUniverse[universe]++))
        << "sequence numbers count up in each universe";
  }
  EXPECT_EQ(perUniverse.size(), 5u);
}

TEST(Tshark, DecodesTheDemosArtNetWithoutAMalformedPacket) {
  if (linesOf("tshark --version 2>/dev/null").empty()) GTEST_SKIP() << "tshark is not installed";
  const test::TemporaryFolder folder;
  const std::string address = test::loopbackAddress(2);
  const Listener listener(address);
  const auto packets = demoPackets(1, listener, address);
  ASSERT_EQ(packets.size(), 3u * 3u) << "three universes, three frames";
  writeCapture(folder.path() / "artnet.pcap", packets, 6454);
  const auto decoded =
      linesOf("tshark -r " + (folder.path() / "artnet.pcap").string() +
              " -d udp.port==6454,artnet -T fields -e frame.protocols -e artnet.header.opcode -e "
              "artnet.header.protver "
              "-e artnet.output.universe -e artnet.output.length -e _ws.malformed 2>/dev/null");
  ASSERT_EQ(decoded.size(), packets.size());
  std::set<std::string> universes;
  for (const std::string& line : decoded) {
    std::istringstream fields(line);
    std::string protocol, opcode, version, universe, length, rest;
    fields >> protocol >> opcode >> version >> universe >> length;
    EXPECT_NE(protocol.find(":artnet"), std::string::npos) << line;
    EXPECT_EQ(opcode, "0x5000");
    EXPECT_EQ(version, "14");
    EXPECT_EQ(length, "512");
    EXPECT_FALSE(fields >> rest) << "malformed: " << line;
    universes.insert(universe);
  }
  EXPECT_EQ(universes.size(), 3u);
}

/// What one frame and the word "now" look like on the wire.
std::vector<std::string> syncedPackets(const Listener& listener, const std::string& address,
                                       Protocol protocol) {
  Controller controller;
  controller.host = address;
  controller.udpPort = listener.port();
  controller.protocol = protocol;
  controller.sendsSync = true;
  controller.priority = 150;
  auto sender = ControllerSender::open(controller, {7, 8}, {});
  EXPECT_TRUE(sender);
  const std::vector<std::uint8_t> values(1024, 9);
  (*sender)->send(values, std::chrono::seconds(1), true);
  (*sender)->sync(std::chrono::nanoseconds(0));
  (*sender)->sync(std::chrono::nanoseconds(0));
  return listener.take();
}

TEST(Tshark, DecodesE131SyncAndPriority) {
  if (linesOf("tshark --version 2>/dev/null").empty()) GTEST_SKIP() << "tshark is not installed";
  const test::TemporaryFolder folder;
  const std::string address = test::loopbackAddress(4);
  const Listener listener(address);
  const auto packets = syncedPackets(listener, address, Protocol::E131);
  ASSERT_EQ(packets.size(), 3u) << "two universes and one word; nothing new, no second word";
  writeCapture(folder.path() / "sync.pcap", packets, 5568);
  const auto decoded = linesOf("tshark -r " + (folder.path() / "sync.pcap").string() +
                               " --enable-heuristic acn -o acn.dmx_enable:TRUE -V 2>/dev/null");
  const auto has = [&](const std::string& words) {
    return std::any_of(decoded.begin(), decoded.end(),
                       [&](const std::string& line) { return line.find(words) != std::string::npos; });
  };
  EXPECT_TRUE(has("Priority: 150"));
  EXPECT_TRUE(has("Universe: 8"));
  EXPECT_FALSE(has("Malformed"));
  EXPECT_FALSE(has("Expert Info"));
  // ANSI E1.31-2018, table 6-2: 49 bytes, root vector 8, framing vector 1, sequence, synchronisation address.
  const auto& sync = packets[2];
  ASSERT_EQ(sync.size(), 49u);
  const auto byte = [&](std::size_t at) { return static_cast<int>(static_cast<unsigned char>(sync[at])); };
  EXPECT_EQ(byte(16) << 8 | byte(17), 0x7021);
  EXPECT_EQ(byte(21), 8);
  EXPECT_EQ(byte(38) << 8 | byte(39), 0x700b);
  EXPECT_EQ(byte(43), 1);
  EXPECT_EQ(byte(45) << 8 | byte(46), 7) << "its own first universe";
  EXPECT_EQ(static_cast<unsigned char>(packets[0][109]) << 8 | static_cast<unsigned char>(packets[0][110]), 7)
      << "data waits for it";
}

TEST(Tshark, DecodesArtSync) {
  if (linesOf("tshark --version 2>/dev/null").empty()) GTEST_SKIP() << "tshark is not installed";
  const test::TemporaryFolder folder;
  const std::string address = test::loopbackAddress(5);
  const Listener listener(address);
  const auto packets = syncedPackets(listener, address, Protocol::ArtNet);
  ASSERT_EQ(packets.size(), 3u);
  writeCapture(folder.path() / "sync.pcap", packets, 6454);
  const auto decoded = linesOf("tshark -r " + (folder.path() / "sync.pcap").string() +
                               " -d udp.port==6454,artnet -T fields -e artnet.header.opcode -e "
                               "artnet.header.protver -e _ws.malformed 2>/dev/null");
  ASSERT_EQ(decoded.size(), 3u);
  EXPECT_EQ(decoded[2].substr(0, 9), "0x5200\t14");
}

TEST(Tshark, DecodesArtPoll) {
  if (linesOf("tshark --version 2>/dev/null").empty()) GTEST_SKIP() << "tshark is not installed";
  const test::TemporaryFolder folder;
  std::string packet(kArtPollPacketSize, '\0');
  writeArtPoll(std::span(reinterpret_cast<std::uint8_t*>(packet.data()), packet.size()));
  writeCapture(folder.path() / "poll.pcap", {packet}, 6454);
  const auto decoded = linesOf("tshark -r " + (folder.path() / "poll.pcap").string() +
                               " -d udp.port==6454,artnet -T fields -e artnet.header.opcode -e "
                               "artnet.header.protver -e _ws.malformed 2>/dev/null");
  ASSERT_EQ(decoded.size(), 1u);
  EXPECT_EQ(decoded[0].substr(0, 9), "0x2000\t14");
}

TEST(Ddp, OneRowInPiecesOf1440BytesTheLastPushed) {
  const std::string address = test::loopbackAddress(6);
  const Listener listener(address);
  Controller controller;
  controller.host = address;
  controller.udpPort = listener.port();
  controller.protocol = Protocol::Ddp;
  auto sender = ControllerSender::open(controller, {0, 1, 2}, {});
  ASSERT_TRUE(sender);
  std::vector<std::uint8_t> values(3 * 512);
  for (std::size_t i = 0; i < values.size(); ++i) values[i] = static_cast<std::uint8_t>(i * 7);
  (*sender)->send(values, std::chrono::seconds(1), false);
  const auto packets = listener.take();
  ASSERT_EQ(packets.size(), 2u);
  const unsigned char first[] = {0x40, 1, 0, 1, 0, 0, 0, 0, 0x05, 0xa0};
  const unsigned char last[] = {0x41, 2, 0, 1, 0, 0, 0x05, 0xa0, 0, 96};
  EXPECT_EQ(std::memcmp(packets[0].data(), first, sizeof first), 0);
  EXPECT_EQ(std::memcmp(packets[1].data(), last, sizeof last), 0);
  EXPECT_EQ(packets[0].size(), 1450u);
  EXPECT_EQ(packets[1].size(), 106u);
  EXPECT_EQ(static_cast<unsigned char>(packets[1][10]), values[1440]);
}

TEST(ControllerSender, SendsUnchangedValuesFourTimesThenOnlyToKeepAlive) {
  const std::string address = test::loopbackAddress(3);
  const Listener listener(address);
  Controller controller;
  controller.host = address;
  controller.udpPort = listener.port();
  auto sender = ControllerSender::open(controller, {1}, {});
  ASSERT_TRUE(sender);
  const std::vector<std::uint8_t> values(512, 7);
  using namespace std::chrono_literals;
  std::vector<int> sent;
  for (auto now = 0ms; now < 3000ms; now += 25ms) {
    (*sender)->send(values, now);
    if ((*sender)->wasSent(0)) sent.push_back(static_cast<int>(now.count()));
  }
  // The change itself, three repeats, then one every 0.8 s.
  EXPECT_EQ(sent, (std::vector<int>{0, 25, 50, 75, 875, 1675, 2475}));
  EXPECT_EQ(listener.take().size(), 7u);
}

TEST(ControllerSender, ANameThatNobodyKnowsIsAFailureWithACure) {
  Controller controller;
  controller.host = "no such host.invalid";
  const auto sender = ControllerSender::open(controller, {1}, {});
  ASSERT_FALSE(sender);
  EXPECT_FALSE(sender.failure().cure.text().empty());
}

TEST(ControllerSender, WhereNobodyListensErrorsAreCounted) {
  Controller controller;
  controller.host = test::loopbackAddress(4);
  controller.udpPort = 9;
  auto sender = ControllerSender::open(controller, {1}, {});
  ASSERT_TRUE(sender);
  const std::vector<std::uint8_t> values(512, 7);
  for (int i = 0; i < 3; ++i) (*sender)->send(values, std::chrono::seconds(i), true);
  EXPECT_EQ((*sender)->counters().lastError.load(), ECONNREFUSED);
}

}  // namespace
}  // namespace chispa::link
