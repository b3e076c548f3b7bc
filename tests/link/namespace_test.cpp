// SPDX-License-Identifier: GPL-3.0-or-later
#include <array>
#include <cstdlib>

#include <arpa/inet.h>
#include <gtest/gtest.h>
#include <sched.h>
#include <sys/socket.h>
#include <sys/wait.h>
#include <unistd.h>

#include "link/beacon.h"
#include "link/sender.h"

namespace chispa::link {
namespace {

bool shell(const std::string& command) {
  return std::system((command + " >/dev/null 2>&1").c_str()) == 0;
}

/// A line to a process: one byte each way at a time.
struct Pipe {
  Pipe() { good = ::pipe(ends.data()) == 0; }
  void tell(char word) const { [[maybe_unused]] const auto written = ::write(ends[1], &word, 1); }
  char hear() const {
    char word = 0;
    return ::read(ends[0], &word, 1) == 1 ? word : 0;
  }
  std::array<int, 2> ends{};
  bool good = false;
};

/// In the receiving namespace: binds `port`, joins `group` if there is one, and counts what arrives within a
/// second.
int receive(int port, const char* group, const Pipe& ready) {
  const int fd = ::socket(AF_INET, SOCK_DGRAM, 0);
  sockaddr_in own{};
  own.sin_family = AF_INET;
  own.sin_port = htons(static_cast<std::uint16_t>(port));
  if (::bind(fd, reinterpret_cast<const sockaddr*>(&own), sizeof own) != 0) return -1;
  if (group) {
    ip_mreq join{};
    inet_pton(AF_INET, group, &join.imr_multiaddr);
    inet_pton(AF_INET, "10.77.0.2", &join.imr_interface);
    if (::setsockopt(fd, IPPROTO_IP, IP_ADD_MEMBERSHIP, &join, sizeof join) != 0) return -1;
  }
  ready.tell('r');
  const timeval wait{1, 0};
  ::setsockopt(fd, SOL_SOCKET, SO_RCVTIMEO, &wait, sizeof wait);
  std::array<char, 2048> buffer;
  int packets = 0;
  while (::recv(fd, buffer.data(), buffer.size(), 0) > 0) ++packets;
  return packets;
}

/// Two namespaces joined by a cable: `send` runs at 10.77.0.1, and what arrives at 10.77.0.2 is counted.
/// Nothing if namespaces are not permitted here.
std::optional<int> countAcross(int port, const char* group, const std::function<void()>& send) {
  Pipe begun, joined, ready, result;
  const pid_t receiver = ::fork();
  if (receiver == 0) {
    if (::unshare(CLONE_NEWNET) != 0) {
      begun.tell('x');
      ::_exit(0);
    }
    begun.tell('b');
    joined.hear();
    shell("ip addr add 10.77.0.2/24 brd 10.77.0.255 dev far && ip link set far up");
    result.tell(static_cast<char>(receive(port, group, ready)));
    ::_exit(0);
  }
  const bool permitted = begun.hear() == 'b';
  std::optional<int> counted;
  if (permitted) {
    const pid_t sender = ::fork();
    if (sender == 0) {
      const bool made = ::unshare(CLONE_NEWNET) == 0 &&
                        shell("ip link add near type veth peer name far netns " + std::to_string(receiver)) &&
                        shell("ip addr add 10.77.0.1/24 brd 10.77.0.255 dev near && ip link set near up");
      joined.tell('j');
      if (!made) ::_exit(1);
      ready.hear();
      // The cable needs a moment until it is up at both ends.
      ::usleep(200'000);
      send();
      ::usleep(200'000);
      ::_exit(0);
    }
    int status = 0;
    ::waitpid(sender, &status, 0);
    const char packets = result.hear();
    if (WIFEXITED(status) && WEXITSTATUS(status) == 0) counted = packets;
  }
  ::waitpid(receiver, nullptr, 0);
  return counted;
}

void sendTwice(const Controller& controller, std::vector<int> universes) {
  const auto sender = ControllerSender::open(controller, universes, {});
  if (!sender) return;
  const std::vector<std::uint8_t> values(universes.size() * 512, 3);
  for (int i = 0; i < 2; ++i) (*sender)->send(values, std::chrono::seconds(i), true);
}

TEST(BetweenNamespaces, MulticastReachesTheGroupOfItsUniverseOnly) {
  Controller controller;
  controller.delivery = Delivery::Multicast;
  controller.localAddress = "10.77.0.1";
  const auto arrived = countAcross(5568, "239.255.2.3", [&] {
    sendTwice(controller, {2 * 256 + 3, 2 * 256 + 4});
  });
  if (!arrived) GTEST_SKIP() << "network namespaces are not permitted here";
  EXPECT_EQ(*arrived, 2) << "two frames of universe 515, none of 516";
}

TEST(BetweenNamespaces, WhatIsMulticastIsAnnouncedEveryTenSeconds) {
  const auto arrived = countAcross(5568, "239.255.250.214", [] {
    auto opened = DiscoveryBeacon::open({}, {1, 2, 515}, "10.77.0.1");
    if (!opened) return;
    DiscoveryBeacon beacon = *std::move(opened);
    for (int second = 0; second < 21; ++second) beacon.tick(std::chrono::seconds(second));
  });
  if (!arrived) GTEST_SKIP() << "network namespaces are not permitted here";
  EXPECT_EQ(*arrived, 3) << "at 0, 10 and 20 s";
}

TEST(BetweenNamespaces, ArtNetBroadcastReachesEverybody) {
  Controller controller;
  controller.protocol = Protocol::ArtNet;
  controller.delivery = Delivery::Broadcast;
  controller.host = "10.77.0.255";
  controller.localAddress = "10.77.0.1";
  const auto arrived = countAcross(6454, nullptr, [&] { sendTwice(controller, {1, 2}); });
  if (!arrived) GTEST_SKIP() << "network namespaces are not permitted here";
  EXPECT_EQ(*arrived, 4);
}

}  // namespace
}  // namespace chispa::link
