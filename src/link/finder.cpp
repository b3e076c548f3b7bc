// SPDX-License-Identifier: GPL-3.0-or-later
#include "link/finder.h"

#include <arpa/inet.h>
#include <ifaddrs.h>
#include <net/if.h>
#include <poll.h>
#include <sys/socket.h>
#include <unistd.h>

#include <algorithm>
#include <array>
#include <cerrno>
#include <chrono>
#include <cstring>

#include "link/artnet.h"

namespace chispa::link {
namespace {

using SteadyTime = std::chrono::steady_clock;

std::string textOf(const sockaddr* address) {
  std::array<char, INET_ADDRSTRLEN> text{};
  if (!address || address->sa_family != AF_INET) return {};
  sockaddr_in in{};
  std::memcpy(&in, address, sizeof in);
  inet_ntop(AF_INET, &in.sin_addr, text.data(), text.size());
  return text.data();
}

sockaddr_in artNetAt(const std::string& address) {
  sockaddr_in to{};
  to.sin_family = AF_INET;
  to.sin_port = htons(kArtNetPort);
  inet_pton(AF_INET, address.c_str(), &to.sin_addr);
  return to;
}

/// A socket on the interface's Art-Net port; nodes answer there.
class PollSocket {
 public:
  explicit PollSocket(const std::string& local) : fd_(::socket(AF_INET, SOCK_DGRAM | SOCK_NONBLOCK | SOCK_CLOEXEC, 0)) {
    constexpr int kOn = 1;
    ::setsockopt(fd_, SOL_SOCKET, SO_REUSEADDR, &kOn, sizeof kOn);
    ::setsockopt(fd_, SOL_SOCKET, SO_BROADCAST, &kOn, sizeof kOn);
    const sockaddr_in own = artNetAt(local);
    isBound_ = fd_ >= 0 && ::bind(fd_, reinterpret_cast<const sockaddr*>(&own), sizeof own) == 0;
  }
  ~PollSocket() {
    if (fd_ >= 0) ::close(fd_);
  }
  PollSocket(const PollSocket&) = delete;
  PollSocket& operator=(const PollSocket&) = delete;

  bool isBound() const { return isBound_; }
  void ask(const std::string& address) const {
    std::array<std::uint8_t, kArtPollPacketSize> packet;
    writeArtPoll(packet);
    const sockaddr_in to = artNetAt(address);
    // Who cannot be asked does not answer: the list says so.
    [[maybe_unused]] const auto sent = ::sendto(fd_, packet.data(), packet.size(), 0, reinterpret_cast<const sockaddr*>(&to), sizeof to);
  }
  /// The next answer within `wait_ms`.
  std::optional<FoundController> hear(int wait_ms) const {
    pollfd waiting{fd_, POLLIN, 0};
    if (::poll(&waiting, 1, wait_ms) <= 0) return std::nullopt;
    std::array<std::uint8_t, 2048> buffer;
    sockaddr_in from{};
    socklen_t size = sizeof from;
    const ssize_t count = ::recvfrom(fd_, buffer.data(), buffer.size(), 0, reinterpret_cast<sockaddr*>(&from), &size);
    if (count <= 0) return std::nullopt;
    const auto reply = readArtPollReply(std::span(buffer).first(static_cast<std::size_t>(count)));
    if (!reply) return std::nullopt;
    // Where it answered from is where it is; what it writes about that may be old.
    return FoundController{textOf(reinterpret_cast<const sockaddr*>(&from)), reply->longName.empty() ? reply->shortName : reply->longName, reply->ports, reply->portAddresses[0]};
  }

 private:
  int fd_;
  bool isBound_ = false;
};

}  // namespace

std::vector<Interface> localInterfaces() {
  std::vector<Interface> all;
  ifaddrs* first = nullptr;
  if (getifaddrs(&first) != 0) return all;
  for (const ifaddrs* at = first; at; at = at->ifa_next) {
    const std::string address = textOf(at->ifa_addr);
    if (address.empty() || !(at->ifa_flags & IFF_UP)) continue;
    all.push_back({at->ifa_name, address, at->ifa_flags & IFF_BROADCAST ? textOf(at->ifa_broadaddr) : std::string()});
  }
  freeifaddrs(first);
  return all;
}

Outcome findControllers(const FindRequest& request, const std::function<void(const FoundController&)>& found, const std::atomic<bool>& cancelled) {
  const PollSocket socket(request.interface.address);
  if (!socket.isBound())
    return Failure{std::string("Nothing can be asked from there (") + std::strerror(errno) + ").", request.interface.address + ":" + std::to_string(kArtNetPort),
                   "Another program may be using Art-Net on this interface: end it, or choose another interface."};
  constexpr auto kListen = std::chrono::milliseconds(3000);
  constexpr auto kAskAgain = std::chrono::milliseconds(1500);
  constexpr int kWait_ms = 50;
  const auto begun = SteadyTime::now();
  std::vector<std::string> known;
  for (int asked = 0; SteadyTime::now() - begun < kListen && !cancelled;) {
    if (SteadyTime::now() - begun >= asked * kAskAgain) {
      ++asked;
      if (!request.interface.broadcast.empty()) socket.ask(request.interface.broadcast);
      for (const std::string& address : request.addresses) socket.ask(address);
    }
    const auto answer = socket.hear(kWait_ms);
    if (!answer || std::find(known.begin(), known.end(), answer->address) != known.end()) continue;
    known.push_back(answer->address);
    found(*answer);
  }
  return Done{};
}

}  // namespace chispa::link
