// SPDX-License-Identifier: GPL-3.0-or-later
// What holds data back, and whose word frees it; priorities channel by channel.
#include <thread>

#include "temporary.h"
#include <arpa/inet.h>
#include <gtest/gtest.h>
#include <sys/socket.h>
#include <unistd.h>

#include "link/artnet.h"
#include "link/e131.h"
#include "link/receiver.h"
#include "link/sender.h"

namespace chispa::link {
namespace {

using namespace std::chrono_literals;

class SyncPackets : public testing::Test {
 protected:
  SyncPackets() {
    Receiver::Options options;
    options.address = address_;
    options.ddpPort = options.opcPort = 0;
    auto opened = Receiver::open(options);
    EXPECT_TRUE(opened) << (opened ? "" : opened.failure().text());
    if (opened) receiver_ = *std::move(opened);
  }
  /// Sends from a socket bound to `from`.
  void send(const std::string& from, std::span<const std::uint8_t> packet, int port) const {
    const int fd = ::socket(AF_INET, SOCK_DGRAM, 0);
    sockaddr_in own{}, to{};
    own.sin_family = to.sin_family = AF_INET;
    inet_pton(AF_INET, from.c_str(), &own.sin_addr);
    inet_pton(AF_INET, address_.c_str(), &to.sin_addr);
    to.sin_port = htons(static_cast<std::uint16_t>(port));
    ASSERT_EQ(::bind(fd, reinterpret_cast<const sockaddr*>(&own), sizeof own), 0);
    ASSERT_EQ(
        ::sendto(fd, packet.data(), packet.size(), 0, reinterpret_cast<const sockaddr*>(&to), sizeof to),
        std::ssize(packet));
    ::close(fd);
  }
  void sendE131(std::uint8_t source, std::uint8_t sequence, int sync, std::uint8_t value,
                int universe = 5) const {
    std::array<std::uint8_t, kE131PacketSize> packet{};
    E131Source own;
    own.cid.fill(source);
    writeE131Header(packet, own, universe);
    setE131SyncAddress(packet, sync);
    setE131Sequence(packet, sequence);
    std::ranges::fill(e131Values(packet), value);
    send(address_, packet, kE131Port);
  }
  void syncE131(std::uint8_t source, int universe) const {
    std::array<std::uint8_t, kE131SyncPacketSize> packet{};
    E131Source own;
    own.cid.fill(source);
    writeE131Sync(packet, own, universe);
    send(address_, packet, kE131Port);
  }
  void sendArtNet(std::uint8_t sequence, std::uint8_t value, const std::string& from) const {
    std::array<std::uint8_t, kArtDmxPacketSize> packet{};
    writeArtDmxHeader(packet, 7);
    setArtDmxSequence(packet, sequence);
    std::ranges::fill(artDmxValues(packet), value);
    send(from, packet, kArtNetPort);
  }
  void syncArtNet(const std::string& from) const {
    std::array<std::uint8_t, kArtSyncPacketSize> packet{};
    writeArtSync(packet);
    send(from, packet, kArtNetPort);
  }
  int value(Protocol protocol, int universe) const {
    for (const auto& one : receiver_->heard())
      if (one.protocol == protocol && one.universe == universe) return one.values[0];
    return -1;
  }
  bool becomes(Protocol protocol, int universe, int wanted) const {
    for (int i = 0; i < 400; ++i) {
      if (value(protocol, universe) == wanted) return true;
      std::this_thread::sleep_for(5ms);
    }
    return false;
  }
  /// What was sent before has been looked at once this has.
  void fence() const {
    static std::uint8_t mark = 0;
    ++mark;
    sendE131(9, mark, 0, mark, 6);
    EXPECT_TRUE(becomes(Protocol::E131, 6, mark));
  }

  std::string address_ = test::loopbackAddress(11);
  std::unique_ptr<Receiver> receiver_;
};

TEST_F(SyncPackets, OfAnotherSourceFreeNothing) {
  syncE131(1, 100);
  sendE131(1, 1, 100, 50);
  fence();
  EXPECT_EQ(value(Protocol::E131, 5), -1) << "it waits";
  syncE131(2, 100);
  fence();
  EXPECT_EQ(value(Protocol::E131, 5), -1) << "that was not its source";
  syncE131(1, 100);
  EXPECT_TRUE(becomes(Protocol::E131, 5, 50));
}

TEST_F(SyncPackets, OfAnotherSourceHoldNothingBack) {
  syncE131(2, 100);
  sendE131(1, 1, 100, 60);
  EXPECT_TRUE(becomes(Protocol::E131, 5, 60));
}

TEST_F(SyncPackets, ThatNeverComeLeaveNothingWaitingForEver) {
  syncE131(1, 100);
  sendE131(1, 1, 100, 50);
  fence();
  // Both the wait and the habit of waiting are over.
  std::this_thread::sleep_for(4200ms);
  syncE131(1, 100);
  fence();
  EXPECT_EQ(value(Protocol::E131, 5), -1) << "what waited was too old to be shown";
}

TEST_F(SyncPackets, ArtSyncIsObeyedAndOnlyFromItsSource) {
  syncArtNet(address_);
  sendArtNet(1, 40, address_);
  fence();
  EXPECT_EQ(value(Protocol::ArtNet, 7), -1);
  syncArtNet(test::loopbackAddress(12));
  fence();
  EXPECT_EQ(value(Protocol::ArtNet, 7), -1);
  syncArtNet(address_);
  EXPECT_TRUE(becomes(Protocol::ArtNet, 7, 40));
}

std::vector<std::uint8_t> full(std::uint8_t value) {
  return std::vector<std::uint8_t>(512, value);
}

TEST(ChannelPriorities, StandInPlaceOfTheUniversesOwn) {
  UniverseMerge merge(kE131Merge, MergeRule::HighestWins);
  const auto low = full(10), high = full(200);
  merge.accept({"a", "A", 150, 1, false, low}, 1s);
  merge.accept({"b", "B", 100, 1, false, high}, 1s);
  EXPECT_EQ(merge.values()[0], 10) << "the higher priority";
  auto priorities = full(0);
  priorities[3] = 180;
  priorities[4] = 150;
  merge.accept({"b", "B", 100, 2, false, priorities, true}, 1s);
  EXPECT_EQ(merge.values()[0], 10) << "b has no say here";
  EXPECT_EQ(merge.values()[3], 200) << "b's is higher";
  EXPECT_EQ(merge.values()[4], 200) << "equal: the larger value";
  merge.accept({"a", "A", 150, 2, false, low}, 4s);
  merge.accept({"b", "B", 100, 3, false, high}, 4s);
  EXPECT_EQ(merge.values()[3], 10) << "they are gone after 2.5 s";
}

TEST(ChannelPriorities, AreReadFromStartCodeDd) {
  std::array<std::uint8_t, kE131PacketSize> packet{};
  writeE131Header(packet, {}, 1);
  const auto values = e131Values(packet);
  std::ranges::fill(values, std::uint8_t{120});
  const auto start = static_cast<std::size_t>(values.data() - packet.data()) - 1;
  for (const auto& [code, isRead] :
       {std::pair(0x00, true), std::pair(0xdd, true), std::pair(0x17, false), std::pair(0xcc, false)}) {
    packet[start] = static_cast<std::uint8_t>(code);
    const auto read = readE131Data(packet);
    EXPECT_EQ(read.has_value(), isRead) << code;
    if (read) {
      EXPECT_EQ(read->startCode, code);
    }
  }
}

TEST(Senders, TakeOnlyUniversesThatExistEachOnceAndRising) {
  Controller box;
  box.host = "127.0.0.1";
  for (const auto& [protocol, universes, isTaken] :
       {std::tuple(Protocol::E131, std::vector{1, 63'999}, true),
        std::tuple(Protocol::E131, std::vector{0}, false),
        std::tuple(Protocol::E131, std::vector{64'000}, false),
        std::tuple(Protocol::ArtNet, std::vector{0, 32'767}, true),
        std::tuple(Protocol::ArtNet, std::vector{-1}, false),
        std::tuple(Protocol::Ddp, std::vector{1'000'000, 0}, false),
        std::tuple(Protocol::Ddp, std::vector{-1, 0}, false),
        std::tuple(Protocol::Ddp, std::vector{3, 3}, false),
        std::tuple(Protocol::Ddp, std::vector{0, 7}, true)}) {
    box.protocol = protocol;
    EXPECT_EQ(static_cast<bool>(ControllerSender::open(box, universes, {})), isTaken)
        << protocolTitle(protocol) << " " << universes[0];
  }
}

/// With sync packets it is the sync packet that hears of the silence, and it knows when.
TEST(Senders, ReportADeadControllerWithSyncOnToo) {
  Controller box;
  box.host = test::loopbackAddress(13);
  box.udpPort = 9;
  box.sendsSync = true;
  auto sender = ControllerSender::open(box, {1}, {});
  ASSERT_TRUE(sender);
  const auto now = 1000s;
  const std::vector<std::uint8_t> values(512, 7);
  for (int i = 0; i < 20 && (*sender)->counters().lastError == 0; ++i) {
    (*sender)->send(values, now + i * 25ms, true);
    (*sender)->sync(now + i * 25ms);
    std::this_thread::sleep_for(5ms);
  }
  EXPECT_EQ((*sender)->counters().lastError, ECONNREFUSED);
  EXPECT_GE((*sender)->counters().lastErrorAt_ns, std::chrono::nanoseconds(now).count());
}

}  // namespace
}  // namespace chispa::link
