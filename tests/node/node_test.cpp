// SPDX-License-Identifier: GPL-3.0-or-later
#include "node/node.h"

#include <algorithm>
#include <fstream>
#include <random>
#include <set>
#include <thread>

#include "capture.h"
#include "temporary.h"
#include <arpa/inet.h>
#include <gtest/gtest.h>
#include <sys/socket.h>
#include <unistd.h>

#include "link/artnet.h"
#include "link/ddp.h"
#include "link/e131.h"
#include "link/setup.h"
#include "node/decode.h"
#include "node/interface.h"

namespace chispa::node {
namespace {

std::vector<std::uint8_t> e131(int universe, std::uint8_t first) {
  std::vector<std::uint8_t> packet(link::kE131PacketSize);
  link::writeE131Header(packet, {}, universe);
  link::e131Values(packet)[0] = first;
  return packet;
}

std::vector<std::uint8_t> artDmx(int universe, std::uint8_t first) {
  std::vector<std::uint8_t> packet(link::kArtDmxPacketSize);
  link::writeArtDmxHeader(packet, universe);
  link::artDmxValues(packet)[0] = first;
  return packet;
}

TEST(Decode, ReadsWhatTheSenderWrites) {
  const auto a = readE131(e131(513, 42));
  ASSERT_TRUE(a);
  EXPECT_EQ(a->universe, 513);
  EXPECT_EQ(a->values[0], 42);
  EXPECT_EQ(a->count, 512);
  EXPECT_EQ(a->sourceName, "Chispa");
  const auto b = readArtDmx(artDmx(0x1234, 9));
  ASSERT_TRUE(b);
  EXPECT_EQ(b->universe, 0x1234);
  EXPECT_EQ(b->values[0], 9);
}

TEST(Decode, ADdpPieceIsReadAndNothingElse) {
  std::vector<std::uint8_t> packet(link::kDdpHeaderSize + 6, 5);
  link::writeDdpHeader(packet, {3, true, 1440, 6});
  const auto piece = readDdp(packet);
  ASSERT_TRUE(piece);
  EXPECT_EQ(piece->offset, 1440u);
  EXPECT_EQ(piece->sequence, 3);
  EXPECT_TRUE(piece->push);
  EXPECT_EQ(piece->data.size(), 6u);
  for (std::size_t size = 0; size < packet.size(); ++size)
    EXPECT_FALSE(readDdp(std::span(packet).first(size))) << size;
  packet[0] |= 0x02;
  EXPECT_FALSE(readDdp(packet)) << "a query";
  link::writeDdpHeader(packet, {3, true, 0xffffff00, 6});
  EXPECT_FALSE(readDdp(packet)) << "beyond any row";
}

TEST(Decode, APollIsKnownAndTheReplyIsRead) {
  std::vector<std::uint8_t> poll(link::kArtPollPacketSize);
  link::writeArtPoll(poll);
  EXPECT_TRUE(isArtPoll(poll));
  EXPECT_FALSE(isArtPoll(artDmx(1, 1)));
  const auto packet = artPollReplies({10, 0, 0, 5}, "Column box", {0x1234, 0x1235, 0x1236})[0];
  const auto reply = link::readArtPollReply(packet);
  ASSERT_TRUE(reply);
  EXPECT_EQ(reply->longName, "Column box");
  EXPECT_EQ(reply->ports, 3);
  EXPECT_EQ(reply->portAddresses[0], 0x1234);
  EXPECT_EQ(reply->portAddresses[2], 0x1236);
  for (std::size_t size = 0; size < 207; ++size)
    EXPECT_FALSE(link::readArtPollReply(std::span(packet).first(size))) << size;
}

TEST(Decode, TsharkReadsThePollReply) {
  if (test::linesOf("tshark --version 2>/dev/null").empty()) GTEST_SKIP() << "tshark is not installed";
  const test::TemporaryFolder folder;
  const auto packet = artPollReplies({10, 0, 0, 5}, "Column box", {0x1234, 0x1235, 0x1236})[0];
  test::writeCapture(folder.path() / "reply.pcap", {std::string(packet.begin(), packet.end())}, 6454);
  const auto lines = test::linesOf("tshark -r " + (folder.path() / "reply.pcap").string() +
                                   " -d udp.port==6454,artnet -V 2>/dev/null");
  const auto has = [&](const std::string& words) {
    return std::any_of(lines.begin(), lines.end(),
                       [&](const std::string& line) { return line.find(words) != std::string::npos; });
  };
  EXPECT_TRUE(has("ArtPollReply (0x2100)"));
  EXPECT_TRUE(has("10.0.0.5"));
  EXPECT_TRUE(has("Column box"));
  EXPECT_TRUE(has("Number of Ports: 3"));
  EXPECT_FALSE(has("Malformed"));
}

TEST(Decode, EveryTruncationIsNothing) {
  const auto a = e131(1, 1);
  const auto b = artDmx(1, 1);
  for (std::size_t size = 0; size < a.size(); ++size)
    EXPECT_FALSE(readE131(std::span(a).first(size))) << size;
  for (std::size_t size = 0; size < b.size(); ++size)
    EXPECT_FALSE(readArtDmx(std::span(b).first(size))) << size;
}

TEST(Decode, WrongFieldsAreNothing) {
  for (const std::size_t at :
       {std::size_t{0}, std::size_t{5}, std::size_t{16}, std::size_t{21}, std::size_t{38}, std::size_t{43},
        std::size_t{115}, std::size_t{117}, std::size_t{118}, std::size_t{123}, std::size_t{125}}) {
    auto packet = e131(1, 1);
    packet[at] ^= 0x55;
    EXPECT_FALSE(readE131(packet)) << at;
  }
  EXPECT_FALSE(readE131(e131(0, 1))) << "universe 0";
}

TEST(Decode, RandomBytesNeverCrash) {
  std::mt19937 random(5);
  for (int round = 0; round < 20'000; ++round) {
    auto packet = round % 2 ? e131(1, 1) : artDmx(1, 1);
    packet.resize(std::uniform_int_distribution<std::size_t>(0, 700)(random));
    for (int i = 0; i < 6 && !packet.empty(); ++i)
      packet[random() % packet.size()] = static_cast<std::uint8_t>(random());
    readE131(packet);
    readArtDmx(packet);
  }
}

TEST(Settings, MakeNoSenseWithAReason) {
  std::string why;
  for (
      const char* wrong :
      {"", "[]", "{}", R"({"ports": 3})",
       R"({"ports": [{"port": 4e38, "protocol": "e131", "sections": []}]})",
       R"({"ports": [{"port": 1, "protocol": "e131", "channels_per_universe": -1e99, "sections": []}]})",
       R"({"ports": [{"port": 99, "protocol": "e131", "sections": []}]})",
       R"({"ports": [{"port": 1, "protocol": "morse", "sections": []}]})",
       R"({"ports": [{"port": 1, "protocol": "e131", "sections": [{"pixels": 1, "order": "XYZ", "skipped_before": 0, "universe": 1, "channel": 1}]}]})"}) {
    why.clear();
    EXPECT_FALSE(parseSettings(wrong, 8, why)) << wrong;
    EXPECT_FALSE(why.empty());
  }
}

/// A node on an address of its own, and a socket to send to it.
class RunningNode : public testing::Test {
 protected:
  RunningNode() : address_(test::loopbackAddress(5)), node_({"Test", 8, address_, {}}) {
    std::string why;
    EXPECT_TRUE(node_.start(why)) << why;
    fd_ = ::socket(AF_INET, SOCK_DGRAM, 0);
  }
  ~RunningNode() override { ::close(fd_); }

  void send(const std::vector<std::uint8_t>& packet, std::uint16_t port) const {
    sockaddr_in to{};
    to.sin_family = AF_INET;
    to.sin_port = htons(port);
    inet_pton(AF_INET, address_.c_str(), &to.sin_addr);
    ::sendto(fd_, packet.data(), packet.size(), 0, reinterpret_cast<const sockaddr*>(&to), sizeof to);
  }
  /// Waits until the node has seen `packets` in all.
  void waitFor(std::uint64_t packets) const {
    for (int i = 0; i < 500; ++i) {
      std::uint64_t seen = 0;
      const auto state = node_.state();
      for (const auto& universe : state["universes"]) seen += universe["packets"].get<std::uint64_t>();
      if (seen >= packets) return;
      std::this_thread::sleep_for(std::chrono::milliseconds(5));
    }
    ADD_FAILURE() << "the packets did not arrive";
  }

  std::string address_;
  Node node_;
  int fd_ = -1;
};

TEST_F(RunningNode, ShowsColoursInTheOrderOfItsSettings) {
  node_.setSettings({{1, "e131", {{2, "GRB", 1, 7, 4}}}, {2, "artnet", {{1, "RGBW", 0, 3, 1}}}});
  auto packet = e131(7, 0);
  auto values = link::e131Values(packet);
  values[3] = 10;  // green of the first pixel that is not skipped
  values[7] = 20;  // red of the second
  send(packet, 5568);
  packet = artDmx(3, 5);
  link::artDmxValues(packet)[3] = 100;
  send(packet, 6454);
  waitFor(2);
  const auto state = node_.state();
  EXPECT_EQ(state["ports"][0]["shows"], (nlohmann::json{"#000000", "#000a00", "#140000"}));
  EXPECT_EQ(state["ports"][1]["shows"], (nlohmann::json{"#696464"})) << "white adds to all three";
}

TEST_F(RunningNode, CountsWhatIsMissing) {
  auto packet = e131(1, 1);
  for (const int sequence : {254, 255, 0, 4}) {
    link::setE131Sequence(packet, static_cast<std::uint8_t>(sequence));
    send(packet, 5568);
  }
  waitFor(4);
  EXPECT_EQ(node_.state()["universes"][0]["lost"], 3);
}

TEST_F(RunningNode, AnAddressInUseIsSaidWithACure) {
  Node other({"Other", 8, address_, {}});
  std::string why;
  EXPECT_FALSE(other.start(why));
  EXPECT_NE(why.find("--listen"), std::string::npos);
}

TEST(Settings, BrightnessDirectionAndZigzagShowOnTheStrip) {
  PortSetup port{1, "e131", {{6, "W", 1, 1, 1}}};
  port.sections[0].brightness = 0.5;
  const auto byteAt = [](int, int channel) { return channel * 10; };
  const auto reds = [&] {
    std::vector<int> all;
    for (const Shown& c : showPort(port, byteAt, false)) all.push_back(c.r);
    return all;
  };
  EXPECT_EQ(reds(), (std::vector{0, 5, 10, 15, 20, 25, 30}));
  port.sections[0].isReversed = true;
  EXPECT_EQ(reds(), (std::vector{0, 30, 25, 20, 15, 10, 5}));
  port.sections[0].isReversed = false;
  port.sections[0].zigzag = 2;
  EXPECT_EQ(reds(), (std::vector{0, 5, 10, 20, 15, 25, 30}));
}

TEST(Settings, WhatIsWrittenIsRead) {
  PortSetup port{2, "opc", {{6, "GRBW", 1, 0, 1, 16, 3, 0.25, true, 4}}, 510, true};
  std::string why;
  const auto read = parseSettings(toJson(std::vector{port}).dump(), 8, why);
  ASSERT_TRUE(read) << why;
  EXPECT_EQ(toJson(*read), toJson(std::vector{port}));
}

/// Every member that the node sends or takes stands in the published schema, and nothing else does.
TEST(Settings, AreThoseOfTheSchema) {
  std::ifstream in(CHISPA_SOURCE_DIR "/docs/node-interface.schema.json");
  const auto schema = nlohmann::json::parse(in);
  const auto names = [](const nlohmann::json& object) {
    std::set<std::string> all;
    for (const auto& [key, value] : object.items()) all.insert(key);
    return all;
  };
  const auto sent = toJson(std::vector{PortSetup{1, "e131", {{}}}});
  EXPECT_EQ(names(sent["ports"][0]), names(schema["$defs"]["port"]["properties"]));
  EXPECT_EQ(names(sent["ports"][0]["sections"][0]), names(schema["$defs"]["section"]["properties"]));
  EXPECT_EQ(names(toJson(Faults{})), names(schema["$defs"]["faults"]["properties"]));
}

TEST(Faults, AreReadFromWordsAndFromJson) {
  std::string why;
  const auto words = parseFaultWords("drop=10,delay=50,reorder=5,order,silent=5,refuse,fail-after=3", why);
  ASSERT_TRUE(words) << why;
  const auto json = parseFaults(toJson(*words).dump(), why);
  ASSERT_TRUE(json) << why;
  EXPECT_EQ(toJson(*json), toJson(*words));
  EXPECT_EQ(words->failsAfterPort, 3);
  for (const char* wrong : {"drop", "drop=x", "drop=200", "smoke", "silent=-1"}) {
    why.clear();
    EXPECT_FALSE(std::string(wrong) != "drop" && parseFaultWords(wrong, why)) << wrong;
  }
  for (const char* wrong :
       {"", "3", R"({"delay_ms": "long"})", R"({"drop_percent": 101})", R"({"delay_ms": 4e38})"})
    EXPECT_FALSE(parseFaults(wrong, why)) << wrong;
}

TEST(Faults, ABadCableDropsDelaysAndReorders) {
  const auto at = [](int ms) {
    return FaultyCable::Instant{} + std::chrono::hours(1) + std::chrono::milliseconds(ms);
  };
  FaultyCable cable;
  std::vector<std::uint8_t> came;
  const auto take = [&](const Incoming& packet) { came.push_back(packet.bytes[0]); };
  const auto put = [&](std::uint8_t number, int ms) { cable.put({0, {number}, {}}, at(ms)); };
  Faults faults;
  faults.delay_ms = 30;
  cable.setFaults(faults, at(0));
  put(1, 0);
  cable.takeDue(at(29), take);
  EXPECT_TRUE(came.empty());
  cable.takeDue(at(30), take);
  EXPECT_EQ(came, (std::vector<std::uint8_t>{1}));
  cable.setFaults({.drop_percent = 50}, at(0));
  came.clear();
  for (int i = 0; i < 200; ++i) put(static_cast<std::uint8_t>(i), 0);
  cable.takeDue(at(1), take);
  EXPECT_GT(came.size(), 60u);
  EXPECT_LT(came.size(), 140u);
  cable.setFaults({.reorder_percent = 40}, at(0));
  came.clear();
  for (int i = 0; i < 100; ++i) put(static_cast<std::uint8_t>(i), 0);
  cable.takeDue(at(1), take);
  EXPECT_GE(came.size(), 99u);
  EXPECT_FALSE(std::is_sorted(came.begin(), came.end()));
  faults = {};
  faults.silent_s = 2;
  FaultyCable silent;
  silent.setFaults(faults, at(0));
  came.clear();
  silent.put({0, {1}, {}}, at(1999));
  silent.put({0, {2}, {}}, at(2001));
  silent.takeDue(at(2001), take);
  EXPECT_EQ(came, (std::vector<std::uint8_t>{2}));
}

TEST(Decode, AnArtAddressIsObeyed) {
  Node node({"Node", 64, "127.0.0.1", {}});
  std::vector<std::uint8_t> packet(link::kArtAddressPacketSize);
  ASSERT_TRUE(link::writeArtAddress(packet, {3, "", "Rim", {0x21, std::nullopt, 0x2f, std::nullopt}}));
  const auto order = readArtAddress(packet);
  ASSERT_TRUE(order);
  EXPECT_EQ(order->bindIndex, 3);
  EXPECT_EQ(order->longName, "Rim");
  EXPECT_EQ(order->outputs[0], 0x21);
  EXPECT_FALSE(order->outputs[1]);
  EXPECT_EQ(order->outputs[2], 0x2f);
  for (std::size_t size = 0; size < packet.size(); ++size)
    EXPECT_FALSE(readArtAddress(std::span(packet).first(size))) << size;
}

TEST(Decode, ANodeOfSixtyFourPortsAnswersSixteenTimes) {
  std::vector<int> addresses;
  for (int i = 0; i < 64; ++i) addresses.push_back(i);
  const auto replies = artPollReplies({10, 0, 0, 5}, "Large", addresses);
  ASSERT_EQ(replies.size(), 16u);
  const auto last = link::readArtPollReply(replies.back());
  ASSERT_TRUE(last);
  EXPECT_EQ(last->bindIndex, 16);
  EXPECT_EQ(last->portAddresses[3], 63);
}

TEST_F(RunningNode, MergesTwoSourcesAndHearsOpcAndDdp) {
  node_.setSettings({{1, "e131", {{1, "RGB", 0, 7, 1}}}, {2, "ddp", {{1, "RGB", 0, 0, 1}}}});
  auto first = e131(7, 10);
  first[22] = 1;  // another CID
  auto second = e131(7, 90);
  second[22] = 2;
  second[108] = 120;
  send(second, 5568);
  send(first, 5568);
  std::vector<std::uint8_t> row(link::kDdpHeaderSize + 3, 20);
  link::writeDdpHeader(row, {1, true, 0, 3, 0x0b});
  send(row, 4048);
  waitFor(3);
  const auto state = node_.state();
  EXPECT_EQ(state["ports"][0]["shows"][0], "#5a0000") << "the higher priority";
  EXPECT_EQ(state["ports"][1]["shows"][0], "#141414");
}

/// A node without the node interface gets what ArtAddress can do, and it is read back by ArtPoll.
TEST_F(RunningNode, IsProgrammedByArtAddress) {
  Controller controller;
  controller.name = "Box";
  controller.protocol = Protocol::ArtNet;
  controller.host = address_;
  const auto wants = [](std::vector<int> universes) {
    std::vector<PortSettings> ports;
    for (std::size_t i = 0; i < universes.size(); ++i)
      ports.push_back({static_cast<int>(i) + 1, Protocol::ArtNet, {{100, "GRB", 0, universes[i], 1}}});
    return ports;
  };
  const auto wanted = wants({0x21, 0x22, 0x23, 0x24, 0x131});
  const auto before = link::compareSetup(controller, wanted);
  ASSERT_TRUE(before) << before.failure().text();
  EXPECT_EQ(before->differences.size(), 5u);
  EXPECT_EQ(before->differences[0].wanted, "Art-Net · universe 33");
  const auto pushed = link::pushSetup(controller, wanted);
  ASSERT_TRUE(pushed) << pushed.failure().text();
  EXPECT_TRUE(pushed->verified);
  EXPECT_EQ(node_.settings().size(), 5u);
  EXPECT_EQ(node_.settings()[4].sections[0].universe, 0x131);
  // Four ports of a node share a sub-net: what cannot be is said, and nothing is changed.
  const auto refused = link::pushSetup(controller, wants({0x21, 0x99}));
  ASSERT_FALSE(refused);
  EXPECT_NE(refused.failure().what.text().find("sub-net"), std::string::npos);
  EXPECT_EQ(node_.settings()[1].sections[0].universe, 0x22);
  controller.host = test::loopbackAddress(6);
  EXPECT_FALSE(link::compareSetup(controller, wanted)) << "nobody is there";
}

}  // namespace
}  // namespace chispa::node
