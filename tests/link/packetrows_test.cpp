// SPDX-License-Identifier: GPL-3.0-or-later
// Controllers that take few packets at once: what leaves when, and that nothing is left behind.
#include <map>
#include <set>

#include "listener.h"
#include "temporary.h"
#include <gtest/gtest.h>

#include "link/ddp.h"
#include "link/e131.h"
#include "link/sender.h"

namespace chispa::link {
namespace {

using namespace std::chrono_literals;

std::span<const std::uint8_t> bytesOf(const std::string& packet) {
  return {reinterpret_cast<const std::uint8_t*>(packet.data()), packet.size()};
}

class PacketRows : public testing::Test {
 protected:
  std::unique_ptr<ControllerSender> open(Protocol protocol, int universes, int most) {
    Controller box;
    box.protocol = protocol;
    box.host = test::loopbackAddress(3);
    box.udpPort = arrived_.port();
    box.maxPacketsInRow = most;
    box.sendsSync = protocol == Protocol::E131;
    std::vector<int> numbers;
    for (int i = 0; i < universes; ++i) numbers.push_back(protocol == Protocol::E131 ? i + 1 : i);
    values_.assign(static_cast<std::size_t>(universes) * 512, 1);
    auto sender = ControllerSender::open(box, numbers, {});
    EXPECT_TRUE(sender);
    return *std::move(sender);
  }
  /// Universes that have arrived, in their order; 0 for the word that all is there.
  std::vector<int> universes() const {
    std::vector<int> seen;
    for (const auto& packet : arrived_.take()) {
      const auto data = readE131Data(bytesOf(packet));
      seen.push_back(data ? data->universe : 0);
    }
    return seen;
  }

  Listener arrived_{test::loopbackAddress(3)};
  std::vector<std::uint8_t> values_;
};

TEST_F(PacketRows, NoMoreLeaveAtOnceThanAreTaken) {
  const auto sender = open(Protocol::E131, 10, 4);
  sender->send(values_, 1s);
  sender->sync(1s);
  EXPECT_EQ(universes(), (std::vector{1, 2, 3, 4}));
  EXPECT_TRUE(sender->hasMore());
  sender->sendMore(1s + 1ms);
  sender->sync(1s + 1ms);
  EXPECT_EQ(universes(), (std::vector{5, 6, 7, 8}));
  sender->sendMore(1s + 2ms);
  sender->sync(1s + 2ms);
  EXPECT_EQ(universes(), (std::vector{9, 10, 0})) << "the word that all is there comes last";
  EXPECT_FALSE(sender->hasMore());
  sender->sendMore(1s + 3ms);
  EXPECT_TRUE(universes().empty());
  EXPECT_EQ(sender->counters().packets, 11u);
  EXPECT_EQ(sender->counters().frames, 2u) << "one frame and one word";
}

TEST_F(PacketRows, WithoutALimitAllLeaveAtOnce) {
  const auto sender = open(Protocol::E131, 40, 0);
  sender->send(values_, 1s);
  EXPECT_FALSE(sender->hasMore());
  EXPECT_EQ(universes().size(), 40u);
}

/// Frames come faster than they can leave: each universe has its turn, with the newest values, and its
/// sequence has no gap.
TEST_F(PacketRows, NoneWaitsForEver) {
  const auto sender = open(Protocol::E131, 10, 4);
  std::map<int, std::vector<int>> sequences;
  std::map<int, int> newest;
  for (int frame = 1; frame <= 10; ++frame) {
    std::fill(values_.begin(), values_.end(), static_cast<std::uint8_t>(frame));
    sender->send(values_, 1s + frame * 25ms);
    for (const auto& packet : arrived_.take()) {
      const auto data = readE131Data(bytesOf(packet));
      ASSERT_TRUE(data);
      sequences[data->universe].push_back(data->sequence);
      EXPECT_EQ(data->values[0], frame) << "what leaves is what is newest";
    }
  }
  ASSERT_EQ(sequences.size(), 10u);
  for (const auto& [universe, numbers] : sequences)
    for (std::size_t i = 0; i < numbers.size(); ++i) EXPECT_EQ(numbers[i], static_cast<int>(i)) << universe;
}

TEST_F(PacketRows, ARowsEndLeavesLastAndEachFrameIsWhole) {
  const auto sender = open(Protocol::Ddp, 20, 3);
  sender->send(values_, 1s);
  std::vector<std::uint32_t> offsets;
  std::vector<bool> pushes;
  const auto note = [&] {
    const auto packets = arrived_.take();
    for (const auto& packet : packets) {
      const auto piece = readDdpData(bytesOf(packet));
      EXPECT_TRUE(piece);
      offsets.push_back(static_cast<std::uint32_t>(piece->offset));
      pushes.push_back(piece->push);
    }
    return packets.size();
  };
  EXPECT_EQ(note(), 3u);
  while (sender->hasMore()) {
    sender->sendMore(1s);
    EXPECT_LE(note(), 3u);
  }
  // 10,240 bytes of 1,440 each.
  EXPECT_EQ(offsets, (std::vector<std::uint32_t>{0, 1440, 2880, 4320, 5760, 7200, 8640, 10080}));
  EXPECT_EQ(pushes, (std::vector<bool>{false, false, false, false, false, false, false, true}));
  EXPECT_EQ(sender->counters().bytes, 10'240u + 8 * kDdpHeaderSize);
  // A frame that comes early lets the one before it end first: without its end it would not be shown.
  std::ranges::fill(values_, std::uint8_t{2});
  sender->send(values_, 2s);
  std::ranges::fill(values_, std::uint8_t{3});
  sender->send(values_, 2s + 1ms);
  const auto packets = arrived_.take();
  ASSERT_EQ(packets.size(), 11u);
  EXPECT_TRUE(readDdpData(bytesOf(packets[7]))->push);
  EXPECT_EQ(readDdpData(bytesOf(packets[7]))->data[0], 2);
  EXPECT_EQ(readDdpData(bytesOf(packets[8]))->data[0], 3);
}

TEST_F(PacketRows, DarknessDoesNotWait) {
  const auto sender = open(Protocol::E131, 10, 4);
  sender->send(values_, 1s);
  arrived_.take();
  sender->endInDark(1s);
  std::set<int> dark;
  for (const auto& packet : arrived_.take())
    if (const auto data = readE131Data(bytesOf(packet))) {
      dark.insert(data->universe);
      EXPECT_EQ(data->values[0], 0);
    }
  EXPECT_EQ(dark.size(), 10u);
  EXPECT_FALSE(sender->hasMore());
}

}  // namespace
}  // namespace chispa::link
