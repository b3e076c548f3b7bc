// SPDX-License-Identifier: GPL-3.0-or-later
// What does not leave by packets: OPC over TCP, serial DMX; and DDP byte by byte.
#include <random>

#include <arpa/inet.h>
#include <fcntl.h>
#include <gtest/gtest.h>
#include <poll.h>
#include <stdlib.h>
#include <sys/socket.h>
#include <unistd.h>

#include "link/ddp.h"
#include "link/hostresolver.h"
#include "link/opc.h"
#include "link/opcsender.h"
#include "link/serialdmx.h"

namespace chispa::link {
namespace {

using namespace std::chrono_literals;

/// Bytes that arrive at `fd` within two seconds, until there are `count`.
std::vector<std::uint8_t> readBytes(int fd, std::size_t count) {
  std::vector<std::uint8_t> bytes;
  pollfd waiting{fd, POLLIN, 0};
  while (bytes.size() < count && ::poll(&waiting, 1, 2000) > 0) {
    std::array<std::uint8_t, 4096> piece;
    const ssize_t got = ::read(fd, piece.data(), std::min(piece.size(), count - bytes.size()));
    if (got <= 0) break;
    bytes.insert(bytes.end(), piece.begin(), piece.begin() + got);
  }
  return bytes;
}

TEST(Ddp, HeaderSaysWhatTheValuesAre) {
  std::array<std::uint8_t, kDdpHeaderSize> packet{};
  writeDdpHeader(packet, {3, true, 0x01020304, 1440, ddpDataType({3, 8})});
  EXPECT_EQ(packet, (std::array<std::uint8_t, 10>{0x41, 0x03, 0x0b, 0x01, 1, 2, 3, 4, 0x05, 0xa0}));
  EXPECT_EQ(ddpDataType({4, 8}), 0x1b);
  EXPECT_EQ(ddpDataType({3, 16}), 0x0c);
  EXPECT_EQ(ddpDataType({4, 16}), 0x1c);
  EXPECT_EQ(ddpDataType({}), 0);
}

TEST(Ddp, QueriesAndRepliesAreToldFromData) {
  std::array<std::uint8_t, kDdpHeaderSize> query{};
  writeDdpQuery(query, DdpQuery::Status);
  EXPECT_EQ(query, (std::array<std::uint8_t, 10>{0x43, 0, 0, 251, 0, 0, 0, 0, 0, 0}));
  EXPECT_FALSE(readDdpData(query));
  const std::string json = "{\"status\":{}}";
  std::vector<std::uint8_t> reply{0x45, 0, 0, 251, 0, 0, 0, 0, 0, static_cast<std::uint8_t>(json.size())};
  reply.insert(reply.end(), json.begin(), json.end());
  EXPECT_EQ(readDdpReply(reply, DdpQuery::Status), json);
  EXPECT_FALSE(readDdpReply(reply, DdpQuery::Config));
  EXPECT_FALSE(readDdpData(reply));
  reply.pop_back();
  EXPECT_FALSE(readDdpReply(reply, DdpQuery::Status)) << "shorter than it says";
}

TEST(Ddp, ReadsDataWithAndWithoutTimeCode) {
  const std::vector<std::uint8_t> plain{0x41, 5, 0x0b, 1, 0, 0, 1, 0, 0, 3, 7, 8, 9};
  const auto piece = readDdpData(plain);
  ASSERT_TRUE(piece);
  EXPECT_EQ(piece->offset, 256u);
  EXPECT_TRUE(piece->push);
  EXPECT_EQ(std::vector(piece->data.begin(), piece->data.end()), (std::vector<std::uint8_t>{7, 8, 9}));
  const std::vector<std::uint8_t> timed{0x50, 5, 0, 255, 0, 0, 0, 0, 0, 1, 1, 2, 3, 4, 42};
  ASSERT_TRUE(readDdpData(timed));
  EXPECT_EQ(readDdpData(timed)->data[0], 42);
  const std::vector<std::uint8_t> other{0x41, 5, 0x0b, 9, 0, 0, 0, 0, 0, 0};
  EXPECT_FALSE(readDdpData(other)) << "for another output";
}

TEST(Opc, MessagesAreFoundHoweverTheStreamIsCut) {
  std::mt19937 random(11);
  const auto whole = [&](int low, int high) { return std::uniform_int_distribution(low, high)(random); };
  std::vector<std::uint8_t> stream;
  std::vector<std::vector<std::uint8_t>> wanted;
  for (int i = 0; i < 50; ++i) {
    std::vector<std::uint8_t> data(static_cast<std::size_t>(whole(0, 900)));
    for (auto& byte : data) byte = static_cast<std::uint8_t>(whole(0, 255));
    std::array<std::uint8_t, kOpcHeaderSize> head{};
    writeOpcHeader(head, static_cast<std::uint8_t>(i), OpcCommand::Set8,
                   static_cast<std::uint16_t>(data.size()));
    stream.insert(stream.end(), head.begin(), head.end());
    stream.insert(stream.end(), data.begin(), data.end());
    wanted.push_back(std::move(data));
  }
  OpcReader reader;
  std::size_t next = 0;
  for (std::size_t at = 0; at < stream.size();) {
    const std::size_t length = std::min(stream.size() - at, static_cast<std::size_t>(whole(1, 700)));
    reader.feed(std::span(stream).subspan(at, length), [&](const OpcReader::Message& message) {
      ASSERT_LT(next, wanted.size());
      EXPECT_EQ(message.channel, next);
      EXPECT_EQ(std::vector(message.data.begin(), message.data.end()), wanted[next++]);
    });
    at += length;
  }
  EXPECT_EQ(next, wanted.size());
}

TEST(Opc, TheSenderFindsItsServerAgainAfterItWasGone) {
  const auto listenAt = [](std::uint16_t port) {
    const int fd = ::socket(AF_INET, SOCK_STREAM, 0);
    constexpr int kOn = 1;
    ::setsockopt(fd, SOL_SOCKET, SO_REUSEADDR, &kOn, sizeof kOn);
    sockaddr_in own{};
    own.sin_family = AF_INET;
    own.sin_port = htons(port);
    own.sin_addr.s_addr = htonl(INADDR_LOOPBACK);
    EXPECT_EQ(::bind(fd, reinterpret_cast<const sockaddr*>(&own), sizeof own), 0);
    EXPECT_EQ(::listen(fd, 1), 0);
    return fd;
  };
  int server = listenAt(0);
  sockaddr_in own{};
  socklen_t size = sizeof own;
  ::getsockname(server, reinterpret_cast<sockaddr*>(&own), &size);
  Controller controller;
  controller.protocol = Protocol::Opc;
  controller.host = "127.0.0.1";
  controller.udpPort = ntohs(own.sin_port);
  controller.firstUniverse = 7;
  auto sender = ControllerSender::open(controller, {0}, {}, resolve, {3, 8});
  ASSERT_TRUE(sender);
  std::vector<std::uint8_t> values(512, 0);
  std::chrono::nanoseconds now{0};
  const auto sendUntilAccepted = [&] {
    for (int i = 0; i < 200; ++i) {
      values[0] = static_cast<std::uint8_t>(i + 1);
      (*sender)->send(values, now += 25ms);
      pollfd waiting{server, POLLIN, 0};
      if (::poll(&waiting, 1, 5) > 0) return ::accept(server, nullptr, nullptr);
    }
    return -1;
  };
  int client = sendUntilAccepted();
  ASSERT_GE(client, 0);
  (*sender)->send(values, now += 25ms, true);
  const auto message = readBytes(client, 4 + 512);
  ASSERT_EQ(message.size(), 516u);
  EXPECT_EQ(message[0], 7) << "channel";
  EXPECT_EQ(message[1], 0) << "set 8-bit colours";
  EXPECT_EQ(message[2] << 8 | message[3], 512);
  ::close(client);
  ::close(server);
  for (int i = 0; i < 20; ++i) {
    values[1] = static_cast<std::uint8_t>(i);
    (*sender)->send(values, now += 25ms);
    std::this_thread::sleep_for(1ms);
  }
  EXPECT_GT((*sender)->counters().errors, 0u);
  server = listenAt(static_cast<std::uint16_t>(controller.udpPort));
  client = sendUntilAccepted();
  EXPECT_GE(client, 0) << "it comes back by itself";
  ::close(client);
  ::close(server);
}

/// A pseudo-terminal stands in for the adapter.
struct PseudoTerminal {
  PseudoTerminal() : master(::posix_openpt(O_RDWR | O_NOCTTY)) {
    if (master < 0 || ::grantpt(master) != 0 || ::unlockpt(master) != 0) return;
    const char* name = ::ptsname(master);
    if (name) path = name;
  }
  ~PseudoTerminal() {
    if (master >= 0) ::close(master);
  }
  int master;
  std::string path;
};

TEST(SerialDmx, SendsStartCodeAndSlotsOverAndOver) {
  PseudoTerminal terminal;
  if (terminal.path.empty()) GTEST_SKIP() << "pseudo-terminals are not permitted here";
  Controller controller;
  controller.protocol = Protocol::SerialDmx;
  controller.host = terminal.path;
  auto sender = ControllerSender::open(controller, {1}, {});
  ASSERT_TRUE(sender) << sender.failure().text();
  std::vector<std::uint8_t> values(512);
  for (std::size_t i = 0; i < values.size(); ++i) values[i] = static_cast<std::uint8_t>(i * 7 + 1);
  (*sender)->send(values, 0ns);
  const auto bytes = readBytes(terminal.master, 3 * 513);
  ASSERT_EQ(bytes.size(), 3u * 513u);
  for (std::size_t frame = 0; frame < 3; ++frame) {
    EXPECT_EQ(bytes[frame * 513], 0) << "start code";
    EXPECT_TRUE(std::equal(values.begin(), values.end(),
                           bytes.begin() + static_cast<std::ptrdiff_t>(frame * 513 + 1)));
  }
}

TEST(SerialDmx, BreakAndMarkAreAsLongAsTheStandardAsks) {
  struct Log {
    std::mutex mutex;
    std::vector<std::chrono::microseconds> breaks;
    std::vector<std::chrono::microseconds> marks;
    std::vector<std::vector<std::uint8_t>> packets;
  };
  class Recorder final : public DmxLine {
   public:
    explicit Recorder(std::shared_ptr<Log> log) : log_(std::move(log)) {}
    int sendBreak(std::chrono::microseconds low, std::chrono::microseconds high) override {
      const std::scoped_lock lock(log_->mutex);
      log_->breaks.push_back(low);
      log_->marks.push_back(high);
      return 0;
    }
    int write(std::span<const std::uint8_t> bytes) override {
      const std::scoped_lock lock(log_->mutex);
      log_->packets.emplace_back(bytes.begin(), bytes.end());
      return 0;
    }

   private:
    std::shared_ptr<Log> log_;
  };
  const auto log = std::make_shared<Log>();
  {
    SerialDmxSender sender(Controller{}, {1}, std::make_unique<Recorder>(log));
    sender.send(std::vector<std::uint8_t>(512, 9), 0ns, true);
    for (int i = 0; i < 100; ++i) {
      std::this_thread::sleep_for(5ms);
      const std::scoped_lock lock(log->mutex);
      if (log->packets.size() > 2) break;
    }
  }
  ASSERT_GT(log->packets.size(), 2u);
  // E1.11-2008 table 6: break 92 µs at least, mark after break 12 µs at least.
  for (const auto low : log->breaks) EXPECT_GE(low, 92us);
  for (const auto high : log->marks) EXPECT_GE(high, 12us);
  EXPECT_EQ(log->packets.front()[1], 9);
  EXPECT_EQ(log->packets.back(), std::vector<std::uint8_t>(513, 0)) << "the last word is black";
}

TEST(SerialDmx, WhatIsNoLineSaysSo) {
  Controller controller;
  controller.protocol = Protocol::SerialDmx;
  controller.host = "/dev/null";
  const auto sender = ControllerSender::open(controller, {1}, {});
  ASSERT_FALSE(sender);
  EXPECT_NE(sender.failure().what.text().find("no serial line"), std::string::npos);
  controller.host = "/dev/nothing-is-here";
  EXPECT_FALSE(ControllerSender::open(controller, {1}, {}));
  EXPECT_FALSE(ControllerSender::open(controller, {1, 2}, {})) << "one universe";
}

TEST(HostResolver, KnowsNumbersAtOnceAndNamesWithoutWaiting) {
  HostResolver book;
  EXPECT_TRUE(book.lookup("127.0.0.9", 5568));
  EXPECT_EQ(book.version(), 0u);
  EXPECT_FALSE(book.lookup("localhost", 5568)) << "the first question only puts it on the list";
  for (int i = 0; i < 400 && book.version() == 0; ++i) std::this_thread::sleep_for(5ms);
  const auto found = book.lookup("localhost", 5568);
  ASSERT_TRUE(found);
  EXPECT_EQ(found->text(), "127.0.0.1:5568");
}

}  // namespace
}  // namespace chispa::link
