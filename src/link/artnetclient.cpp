// SPDX-License-Identifier: GPL-3.0-or-later
#include "link/artnetclient.h"

#include <cerrno>
#include <chrono>
#include <cstring>

#include <poll.h>
#include <sys/socket.h>
#include <unistd.h>

#include "link/socketaddress.h"

namespace chispa::link {
namespace {

/// This machine's address on the way to `node`, as the routes say.
in_addr localAddressTo(const sockaddr_in& node) {
  sockaddr_in own{};
  const int probe = ::socket(AF_INET, SOCK_DGRAM | SOCK_CLOEXEC, 0);
  socklen_t size = sizeof own;
  if (::connect(probe, reinterpret_cast<const sockaddr*>(&node), sizeof node) == 0)
    ::getsockname(probe, reinterpret_cast<sockaddr*>(&own), &size);
  ::close(probe);
  return own.sin_addr;
}

}  // namespace

Result<std::unique_ptr<ArtNetClient>> ArtNetClient::open(const std::string& host) {
  const auto node = resolve(host, kArtNetPort);
  if (!node) return node.failure();
  const sockaddr_in to = socketAddress(*node);
  sockaddr_in own{};
  own.sin_family = AF_INET;
  own.sin_port = htons(kArtNetPort);
  own.sin_addr = localAddressTo(to);
  const int fd = ::socket(AF_INET, SOCK_DGRAM | SOCK_CLOEXEC, 0);
  constexpr int kOn = 1;
  ::setsockopt(fd, SOL_SOCKET, SO_REUSEADDR, &kOn, sizeof kOn);
  if (::bind(fd, reinterpret_cast<const sockaddr*>(&own), sizeof own) != 0 ||
      ::connect(fd, reinterpret_cast<const sockaddr*>(&to), sizeof to) != 0) {
    const std::string why = std::strerror(errno);
    ::close(fd);
    return Failure{sentence("The Art-Net port of this machine cannot be used (%1).", why), host,
                   "Another program may be using Art-Net: end it."};
  }
  return std::unique_ptr<ArtNetClient>(new ArtNetClient(fd, *node));
}

ArtNetClient::~ArtNetClient() {
  ::close(fd_);
}

bool ArtNetClient::send(std::span<const std::uint8_t> packet) const {
  return ::send(fd_, packet.data(), packet.size(), 0) == static_cast<ssize_t>(packet.size());
}

std::vector<ArtPollReply> ArtNetClient::replies() const {
  using SteadyTime = std::chrono::steady_clock;
  constexpr int kFirst_ms = 1000;
  constexpr int kMore_ms = 100;
  constexpr std::size_t kMax = 255;
  std::vector<ArtPollReply> all;
  const auto until = SteadyTime::now() + std::chrono::milliseconds(2 * kFirst_ms);
  pollfd waiting{fd_, POLLIN, 0};
  std::array<std::uint8_t, 2048> buffer;
  while (all.size() < kMax && SteadyTime::now() < until &&
         ::poll(&waiting, 1, all.empty() ? kFirst_ms : kMore_ms) > 0) {
    const ssize_t size = ::recv(fd_, buffer.data(), buffer.size(), 0);
    if (size < 0) break;
    if (const auto reply = readArtPollReply(std::span(buffer).first(static_cast<std::size_t>(size))))
      all.push_back(*reply);
  }
  return all;
}

std::vector<ArtPollReply> ArtNetClient::poll() const {
  std::array<std::uint8_t, kArtPollPacketSize> packet;
  writeArtPoll(packet);
  return send(packet) ? replies() : std::vector<ArtPollReply>();
}

Outcome ArtNetClient::order(const ArtAddress& wanted) const {
  std::array<std::uint8_t, kArtAddressPacketSize> packet;
  if (const Outcome written = writeArtAddress(packet, wanted); !written) return written;
  if (!send(packet) || replies().empty())
    return Failure{"The node did not answer the order to change its ports.", node_.text(),
                   "Check that it can be programmed by Art-Net, and its address."};
  return Done{};
}

}  // namespace chispa::link
