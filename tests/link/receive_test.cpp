// SPDX-License-Identifier: GPL-3.0-or-later
// Receiving: codecs, merging and the sockets; and what tshark says of the packets that are rarer.
#include <cerrno>
#include <cstring>
#include <functional>
#include <random>
#include <thread>

#include "capture.h"
#include "temporary.h"
#include <arpa/inet.h>
#include <gtest/gtest.h>
#include <sys/socket.h>
#include <unistd.h>

#include "link/artnet.h"
#include "link/finder.h"
#include "link/merge.h"
#include "link/receiver.h"
#include "link/sender.h"

namespace chispa::link {
namespace {

using namespace std::chrono_literals;

bool eventually(const std::function<bool()>& condition) {
  for (int i = 0; i < 1000; ++i) {
    if (condition()) return true;
    std::this_thread::sleep_for(5ms);
  }
  return false;
}

std::vector<std::uint8_t> dataPacket(int universe, std::uint8_t sequence, std::uint8_t value) {
  std::vector<std::uint8_t> packet(kE131PacketSize);
  writeE131Header(packet, {}, universe);
  setE131Sequence(packet, sequence);
  e131Values(packet)[0] = value;
  return packet;
}

TEST(E131, WhatIsWrittenIsRead) {
  auto packet = dataPacket(63'999, 77, 5);
  setE131SyncAddress(packet, 900);
  const auto data = readE131Data(packet);
  ASSERT_TRUE(data);
  EXPECT_EQ(data->universe, 63'999);
  EXPECT_EQ(data->sequence, 77);
  EXPECT_EQ(data->syncUniverse, 900);
  EXPECT_EQ(data->name, "Chispa");
  EXPECT_EQ(data->values.size(), 512u);
  EXPECT_FALSE(data->isTerminated);
  setE131Terminated(packet, true);
  EXPECT_TRUE(readE131Data(packet)->isTerminated);
  std::vector<std::uint8_t> sync(kE131SyncPacketSize);
  writeE131Sync(sync, {}, 900);
  setE131SyncSequence(sync, 3);
  ASSERT_TRUE(readE131Sync(sync));
  EXPECT_EQ(readE131Sync(sync)->universe, 900);
  EXPECT_FALSE(readE131Sync(packet));
  EXPECT_FALSE(readE131Data(sync));
  const std::vector<int> universes{1, 7, 300};
  const auto page = readE131Discovery(e131Discovery({}, 0, 1, universes));
  ASSERT_TRUE(page);
  EXPECT_EQ(page->universes, universes);
  EXPECT_EQ(page->lastPage, 1);
}

TEST(E131, EveryTruncationAndTwoHundredThousandDamagesAreNothingWorse) {
  const std::vector<int> universes{1, 2};
  std::vector<std::uint8_t> sync(kE131SyncPacketSize);
  writeE131Sync(sync, {}, 9);
  std::mt19937 random(4);
  for (const auto& whole : {dataPacket(1, 1, 1), sync, e131Discovery({}, 0, 0, universes)}) {
    for (std::size_t size = 0; size < whole.size(); ++size) {
      const auto cut = std::span(whole).first(size);
      EXPECT_FALSE(readE131Data(cut)) << size;
      EXPECT_FALSE(readE131Sync(cut)) << size;
      EXPECT_FALSE(readE131Discovery(cut)) << size;
    }
    for (int round = 0; round < 60'000; ++round) {
      auto damaged = whole;
      damaged[random() % damaged.size()] = static_cast<std::uint8_t>(random());
      const auto data = readE131Data(damaged);
      EXPECT_TRUE(!data || data->values.size() <= 512);
      readE131Sync(damaged);
      readE131Discovery(damaged);
    }
  }
}

TEST(ArtNet, AnOrderForFourPortsStaysInOneBlock) {
  std::vector<std::uint8_t> packet(kArtAddressPacketSize);
  EXPECT_FALSE(writeArtAddress(packet, {1, "", "", {15, 16, std::nullopt, std::nullopt}}));
  ASSERT_TRUE(writeArtAddress(packet, {2, "Short", "A long name", {0x1234, 0x1235, std::nullopt, 0x1230}}));
  EXPECT_EQ(packet[8] | packet[9] << 8, 0x6000);
  EXPECT_EQ(packet[12], 0x80 | 0x12);
  EXPECT_EQ(packet[13], 2);
  EXPECT_EQ(packet[100], 0x84);
  EXPECT_EQ(packet[101], 0x85);
  EXPECT_EQ(packet[102], 0x7f) << "left as it is";
  EXPECT_EQ(packet[103], 0x80);
  EXPECT_EQ(packet[104], 0x83);
}

TEST(ArtNet, TsharkReadsTheOrder) {
  if (test::linesOf("tshark --version 2>/dev/null").empty()) GTEST_SKIP() << "tshark is not installed";
  const test::TemporaryFolder folder;
  const auto has = [](const std::vector<std::string>& lines, const std::string& words) {
    return std::any_of(lines.begin(), lines.end(),
                       [&](const std::string& line) { return line.find(words) != std::string::npos; });
  };
  std::string order(kArtAddressPacketSize, 0);
  ASSERT_TRUE(
      writeArtAddress({reinterpret_cast<std::uint8_t*>(order.data()), order.size()},
                      {1, "Short", "A long name", {0x1234, std::nullopt, std::nullopt, std::nullopt}}));
  test::writeCapture(folder.path() / "order.pcap", {order}, 6454);
  const auto lines = test::linesOf("tshark -r " + (folder.path() / "order.pcap").string() +
                                   " -d udp.port==6454,artnet -V 2>/dev/null");
  EXPECT_TRUE(has(lines, "ArtAddress (0x6000)"));
  EXPECT_TRUE(has(lines, "A long name"));
  EXPECT_FALSE(has(lines, "Malformed"));
}

/// tshark's ACN dissector knows E1.31 data only: extended packets are checked against the tables of the
/// standard.
TEST(E131, ADiscoveryPageHasTheBytesOfTheStandard) {
  E131Source source;
  source.name = "Box";
  const std::vector<int> universes{1, 0x1234};
  const auto page = e131Discovery(source, 2, 3, universes);
  ASSERT_EQ(page.size(), 124u);
  const auto at = [&](std::size_t from, std::vector<std::uint8_t> wanted) {
    EXPECT_TRUE(std::equal(wanted.begin(), wanted.end(), page.begin() + static_cast<std::ptrdiff_t>(from)))
        << from;
  };
  at(0, {0x00, 0x10, 0x00, 0x00, 'A', 'S', 'C', '-', 'E', '1', '.', '1', '7', 0, 0, 0});
  at(16, {0x70, 108, 0, 0, 0, 8});  // root: length from here, VECTOR_ROOT_E131_EXTENDED
  at(38, {0x70, 86, 0, 0, 0, 2});   // framing: VECTOR_E131_EXTENDED_DISCOVERY
  at(44, {'B', 'o', 'x', 0});
  at(108, {0, 0, 0, 0});            // reserved
  at(112, {0x70, 12, 0, 0, 0, 1});  // VECTOR_UNIVERSE_DISCOVERY_UNIVERSE_LIST
  at(118, {2, 3, 0x00, 0x01, 0x12, 0x34});
}

class Merging : public testing::Test {
 protected:
  bool hear(const std::string& source, int priority, std::uint8_t sequence,
            std::vector<std::uint8_t> values) {
    return merge_.accept({source, source, priority, sequence, false, values}, now_ += 25ms);
  }
  UniverseMerge merge_{kE131Merge, MergeRule::HighestWins};
  std::chrono::nanoseconds now_{0};
};

TEST_F(Merging, OnlyTheHighestPriorityCounts) {
  hear("a", 100, 1, {10, 200});
  hear("b", 120, 1, {50, 60});
  EXPECT_EQ(merge_.values()[0], 50);
  EXPECT_EQ(merge_.values()[1], 60);
  hear("a", 130, 2, {1, 2});
  EXPECT_EQ(merge_.values()[0], 1);
}

TEST_F(Merging, EqualPrioritiesMergeChannelByChannel) {
  hear("a", 100, 1, {10, 200});
  hear("b", 100, 1, {50, 60});
  EXPECT_EQ(merge_.values()[0], 50);
  EXPECT_EQ(merge_.values()[1], 200);
}

TEST_F(Merging, WhatComesTooLateIsThrownAwayAndALongStepBackIsANewBeginning) {
  EXPECT_TRUE(hear("a", 100, 100, {1}));
  EXPECT_FALSE(hear("a", 100, 99, {2}));
  EXPECT_FALSE(hear("a", 100, 100, {2}));
  EXPECT_FALSE(hear("a", 100, 81, {2}));
  EXPECT_TRUE(hear("a", 100, 80, {3})) << "20 behind: the source has begun anew (§6.7.2)";
  EXPECT_TRUE(hear("a", 100, 90, {4}));
  EXPECT_EQ(merge_.sources()[0].lost, 9u);
  EXPECT_EQ(merge_.sources()[0].late, 3u);
}

TEST_F(Merging, ASilentOrEndedSourceGivesWay) {
  hear("a", 100, 1, {10});
  hear("b", 150, 1, {5});
  EXPECT_EQ(merge_.values()[0], 5);
  merge_.accept({"b", "b", 150, 2, true, {}}, now_);
  EXPECT_EQ(merge_.values()[0], 10);
  EXPECT_FALSE(merge_.expire(now_ + 2400ms));
  EXPECT_TRUE(merge_.expire(now_ + 2600ms));
  EXPECT_EQ(merge_.values()[0], 0);
}

TEST(ArtNetMerging, ThereAreTwoSourcesAndTheLatestChangeMayWin) {
  UniverseMerge merge(kArtNetMerge, MergeRule::LatestWins);
  const std::vector<std::uint8_t> low{10}, high{90}, middle{50};
  const auto hear = [&](const char* who, std::uint8_t sequence, const std::vector<std::uint8_t>& values,
                        std::chrono::milliseconds at) {
    return merge.accept({who, who, 100, sequence, false, values}, at);
  };
  EXPECT_TRUE(hear("a", 1, high, 0ms));
  EXPECT_TRUE(hear("b", 1, low, 10ms));
  EXPECT_EQ(merge.values()[0], 10);
  EXPECT_FALSE(hear("c", 1, middle, 20ms)) << "a third is not heard";
  EXPECT_TRUE(hear("a", 2, high, 30ms));
  EXPECT_EQ(merge.values()[0], 10) << "saying the same again changes nothing";
  EXPECT_TRUE(hear("a", 3, middle, 40ms));
  EXPECT_EQ(merge.values()[0], 50);
  EXPECT_TRUE(hear("a", 128, low, 45ms));
  EXPECT_TRUE(hear("a", 255, low, 50ms));
  EXPECT_TRUE(hear("a", 1, low, 60ms)) << "255 is followed by 1";
  EXPECT_TRUE(hear("a", 0, low, 70ms)) << "0 does not count";
  EXPECT_EQ(merge.sources()[0].lost, 124u + 126u);
}

/// What the senders send arrives, whatever the protocol.
class Receiving : public testing::Test {
 protected:
  Receiving() : address_(test::loopbackAddress(9)) {
    Receiver::Options options;
    options.address = address_;
    auto opened = Receiver::open(options);
    EXPECT_TRUE(opened) << opened.failure().text();
    if (opened) receiver_ = *std::move(opened);
  }
  Controller controller(Protocol protocol) const {
    Controller c;
    c.protocol = protocol;
    c.host = address_;
    return c;
  }
  std::optional<ReceivedUniverse> heard(Protocol protocol, int universe) const {
    for (const auto& one : receiver_->heard())
      if (one.protocol == protocol && one.universe == universe) return one;
    return std::nullopt;
  }
  bool shows(Protocol protocol, int universe, std::size_t channel, int value) const {
    return eventually([&] {
      const auto one = heard(protocol, universe);
      return one && one->values[channel] == value;
    });
  }

  std::string address_;
  std::unique_ptr<Receiver> receiver_;
};

TEST_F(Receiving, EveryProtocol) {
  const std::pair<Protocol, int> all[] = {
      {Protocol::E131, 7}, {Protocol::ArtNet, 0x123}, {Protocol::Ddp, 0}, {Protocol::Opc, 0}};
  std::vector<std::uint8_t> values(512, 0);
  values[500] = 42;
  for (const auto& [protocol, universe] : all) {
    auto sender = ControllerSender::open(controller(protocol), {universe}, {}, resolve, {3, 8});
    ASSERT_TRUE(sender) << sender.failure().text();
    std::chrono::nanoseconds now{0};
    // A TCP connection takes a moment to be made.
    ASSERT_TRUE(eventually([&] {
      (*sender)->send(values, now += 1s, true);
      const auto one = heard(protocol, universe);
      return one && one->values[500] == 42;
    })) << protocolTitle(protocol);
    EXPECT_EQ(heard(protocol, universe)->sources.size(), 1u);
  }
  EXPECT_EQ(receiver_->unreadable(), 0u);
}

TEST_F(Receiving, DataWaitsForItsSync) {
  Controller synced = controller(Protocol::E131);
  synced.sendsSync = true;
  auto sender = ControllerSender::open(synced, {3}, {});
  ASSERT_TRUE(sender);
  std::vector<std::uint8_t> values(512, 1);
  (*sender)->send(values, 0ns, true);
  (*sender)->sync(std::chrono::nanoseconds(0));
  EXPECT_TRUE(shows(Protocol::E131, 3, 0, 1)) << "before the first sync nothing is held back";
  values.assign(512, 2);
  (*sender)->send(values, 25ms, true);
  // Something later on another universe proves that the first has been looked at.
  auto other = ControllerSender::open(controller(Protocol::E131), {4}, {});
  (*other)->send(values, 0ns, true);
  EXPECT_TRUE(shows(Protocol::E131, 4, 0, 2));
  EXPECT_EQ(heard(Protocol::E131, 3)->values[0], 1) << "it waits";
  (*sender)->sync(std::chrono::nanoseconds(0));
  EXPECT_TRUE(shows(Protocol::E131, 3, 0, 2));
}

TEST_F(Receiving, ATakenPortIsSaidWithACure) {
  Receiver::Options options;
  options.address = address_;
  options.e131Port = 0;
  options.artNetPort = 0;
  options.ddpPort = 0;
  const auto second = Receiver::open(options);
  ASSERT_FALSE(second);
  EXPECT_NE(second.failure().cure.text().find("end it"), std::string::npos);
}

/// Looking for others must not take the E1.31 port of this machine's addresses away.
TEST(Finding, LeavesTheDataPortsToThoseWhoReceive) {
  const std::string address = test::loopbackAddress(14);
  std::atomic<bool> cancelled{false};
  std::thread finding([&] {
    EXPECT_TRUE(findControllers(
        {{{"lo", address, {}}}, {}}, [](const FoundController&) {}, cancelled));
  });
  std::this_thread::sleep_for(200ms);
  Receiver::Options options;
  options.address = test::loopbackAddress(13);
  options.artNetPort = 0;
  EXPECT_TRUE(Receiver::open(options));
  // Without the option to share, as a node binds.
  const int fd = ::socket(AF_INET, SOCK_DGRAM, 0);
  sockaddr_in own{};
  own.sin_family = AF_INET;
  own.sin_port = htons(kE131Port);
  inet_pton(AF_INET, address.c_str(), &own.sin_addr);
  EXPECT_EQ(::bind(fd, reinterpret_cast<const sockaddr*>(&own), sizeof own), 0) << std::strerror(errno);
  ::close(fd);
  cancelled = true;
  finding.join();
}

/// Who listens to groups leaves the port of other addresses to those who have them, and shares the groups.
TEST(ListeningToGroups, LeavesANodeItsPort) {
  const int fd = ::socket(AF_INET, SOCK_DGRAM, 0);
  sockaddr_in own{};
  own.sin_family = AF_INET;
  own.sin_port = htons(kE131Port);
  inet_pton(AF_INET, test::loopbackAddress(14).c_str(), &own.sin_addr);
  ASSERT_EQ(::bind(fd, reinterpret_cast<const sockaddr*>(&own), sizeof own), 0) << std::strerror(errno);
  Receiver::Options options;
  options.address = test::loopbackAddress(13);
  options.groups = {90, 91};
  options.artNetPort = options.ddpPort = options.opcPort = 0;
  const auto first = Receiver::open(options);
  ASSERT_TRUE(first) << first.failure().what.text();
  const auto second = Receiver::open(options);
  EXPECT_TRUE(second) << second.failure().what.text();
  ::close(fd);
}

}  // namespace
}  // namespace chispa::link
