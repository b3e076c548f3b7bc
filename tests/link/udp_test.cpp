// SPDX-License-Identifier: GPL-3.0-or-later
#include "link/udp.h"

#include <array>

#include <arpa/inet.h>
#include <gtest/gtest.h>
#include <poll.h>
#include <sys/socket.h>
#include <unistd.h>

namespace chispa::link {
namespace {

/// Takes what is sent to a port of loopback.
class Post {
 public:
  Post() : fd_(::socket(AF_INET, SOCK_DGRAM | SOCK_CLOEXEC, 0)) {
    constexpr int kBuffer = 8 << 20;
    ::setsockopt(fd_, SOL_SOCKET, SO_RCVBUF, &kBuffer, sizeof kBuffer);
    sockaddr_in own{};
    own.sin_family = AF_INET;
    own.sin_addr.s_addr = htonl(INADDR_LOOPBACK);
    socklen_t size = sizeof own;
    ::bind(fd_, reinterpret_cast<const sockaddr*>(&own), size);
    ::getsockname(fd_, reinterpret_cast<sockaddr*>(&own), &size);
    port_ = ntohs(own.sin_port);
  }
  ~Post() { close(); }
  void close() {
    if (fd_ >= 0) ::close(fd_);
    fd_ = -1;
  }
  Endpoint endpoint() const { return {INADDR_LOOPBACK, port_}; }
  /// The first byte of each packet that has come, in order; all must be `size` long and of that byte
  /// throughout.
  std::vector<int> taken(std::size_t size) const {
    std::vector<int> all;
    std::array<std::uint8_t, 4096> buffer;
    pollfd waiting{fd_, POLLIN, 0};
    while (::poll(&waiting, 1, 200) > 0) {
      const ssize_t got = ::recv(fd_, buffer.data(), buffer.size(), MSG_DONTWAIT);
      if (got < 0) break;
      EXPECT_EQ(static_cast<std::size_t>(got), size);
      for (ssize_t i = 1; i < got; ++i) EXPECT_EQ(buffer[static_cast<std::size_t>(i)], buffer[0]);
      all.push_back(buffer[0]);
    }
    return all;
  }

 private:
  int fd_;
  std::uint16_t port_ = 0;
};

UdpSender opened(const Post& post) {
  auto sender = UdpSender::open(post.endpoint());
  EXPECT_TRUE(sender);
  return *std::move(sender);
}

std::vector<std::uint8_t> packetsOf(std::size_t count, std::size_t size) {
  std::vector<std::uint8_t> all(count * size);
  for (std::size_t i = 0; i < all.size(); ++i) all[i] = static_cast<std::uint8_t>(i / size);
  return all;
}

/// Whether many are handed over as one or each by itself: the marked ones come, whole and in their order.
TEST(UdpSender, SendsTheMarkedPacketsInOrder) {
  for (const bool many : {true, false})
    for (const std::size_t count : {1u, 2u, 16u, 17u, 100u, 250u}) {
      const Post post;
      UdpSender sender = opened(post);
      sender.handOverMany(many);
      constexpr std::size_t kSize = 638;
      const auto packets = packetsOf(count, kSize);
      std::vector<std::uint8_t> which(count);
      std::vector<int> marked;
      for (std::size_t i = 0; i < count; ++i)
        if ((which[i] = i % 5 != 3)) marked.push_back(static_cast<int>(i));
      const auto sent = sender.send(packets, kSize, which);
      EXPECT_EQ(sent.packets, marked.size());
      EXPECT_EQ(sent.error, 0);
      EXPECT_EQ(post.taken(kSize), marked) << (many ? "as one, " : "singly, ") << count;
      EXPECT_EQ(sender.handsOverMany(), many);
    }
}

/// Packets that the kernel does not cut up, here for being more than a datagram can hold together, go one by
/// one, and none is lost or sent twice.
TEST(UdpSender, FallsBackToSingleOnes) {
  const Post post;
  UdpSender sender = opened(post);
  constexpr std::size_t kSize = 4'090;
  constexpr std::size_t kCount = 20;
  const auto packets = packetsOf(kCount, kSize);
  const std::vector<std::uint8_t> which(kCount, 1);
  const auto sent = sender.send(packets, kSize, which);
  EXPECT_EQ(sent.packets, kCount);
  const auto taken = post.taken(kSize);
  ASSERT_EQ(taken.size(), kCount);
  for (std::size_t i = 0; i < kCount; ++i) EXPECT_EQ(taken[i], static_cast<int>(i));
}

/// Where nobody listens it is said, and what was refused is counted by the packet.
TEST(UdpSender, SaysThatNobodyListens) {
  Post post;
  UdpSender sender = opened(post);
  post.close();
  const auto packets = packetsOf(40, 100);
  const std::vector<std::uint8_t> which(40, 1);
  int error = 0;
  for (int i = 0; i < 5; ++i) {
    const auto sent = sender.send(packets, 100, which);
    EXPECT_LE(sent.packets, 40u);
    if (sent.error != 0) error = sent.error;
  }
  EXPECT_EQ(error, ECONNREFUSED);
}

}  // namespace
}  // namespace chispa::link
