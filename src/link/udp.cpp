// SPDX-License-Identifier: GPL-3.0-or-later
#include "link/udp.h"

#include <array>
#include <cerrno>
#include <cstring>
#include <utility>

#include <netdb.h>
#include <netinet/udp.h>
#include <sys/socket.h>
#include <unistd.h>

#include "link/socketaddress.h"

namespace chispa::link {
std::string Endpoint::text() const {
  return hostText(address) + ":" + std::to_string(port);
}

Result<Endpoint> resolve(const std::string& host, int port) {
  in_addr numeric{};
  if (inet_pton(AF_INET, host.c_str(), &numeric) == 1)
    return Endpoint{ntohl(numeric.s_addr), static_cast<std::uint16_t>(port)};
  addrinfo hints{};
  hints.ai_family = AF_INET;
  hints.ai_socktype = SOCK_DGRAM;
  addrinfo* found = nullptr;
  const int code = host.empty() ? EAI_NONAME : getaddrinfo(host.c_str(), nullptr, &hints, &found);
  if (code != 0 || !found)
    return Failure{sentence("No machine of the name \"%1\" is known (%2).", host, gai_strerror(code)), host,
                   "Check the spelling, or enter the controller's IP address."};
  sockaddr_in address{};
  std::memcpy(&address, found->ai_addr, sizeof address);
  freeaddrinfo(found);
  return Endpoint{ntohl(address.sin_addr.s_addr), static_cast<std::uint16_t>(port)};
}

UdpSender::~UdpSender() {
  if (fd_ >= 0) ::close(fd_);
}

UdpSender::UdpSender(UdpSender&& other) noexcept
    : fd_(std::exchange(other.fd_, -1)), segments_(other.segments_) {}

UdpSender& UdpSender::operator=(UdpSender&& other) noexcept {
  std::swap(fd_, other.fd_);
  std::swap(segments_, other.segments_);
  return *this;
}

namespace {

/// Chooses the interface that multicast or broadcast leaves by; false if the system does not want that.
bool chooseInterface(int fd, Reach reach, const std::string& local) {
  constexpr int kOn = 1;
  if (reach == Reach::Broadcast && ::setsockopt(fd, SOL_SOCKET, SO_BROADCAST, &kOn, sizeof kOn) != 0)
    return false;
  if (local.empty()) return true;
  in_addr own{};
  if (inet_pton(AF_INET, local.c_str(), &own) != 1) return false;
  if (reach == Reach::Groups) return ::setsockopt(fd, IPPROTO_IP, IP_MULTICAST_IF, &own, sizeof own) == 0;
  sockaddr_in from{};
  from.sin_family = AF_INET;
  from.sin_addr = own;
  return ::bind(fd, reinterpret_cast<const sockaddr*>(&from), sizeof from) == 0;
}

}  // namespace

Result<UdpSender> UdpSender::open(Endpoint to, Reach reach, const std::string& local) {
  UdpSender sender;
  sender.fd_ = ::socket(AF_INET, SOCK_DGRAM | SOCK_NONBLOCK | SOCK_CLOEXEC, 0);
  if (sender.fd_ >= 0 && reach != Reach::One && !chooseInterface(sender.fd_, reach, local))
    return Failure{sentence("Nothing can leave by this interface (%1).", std::strerror(errno)),
                   local.empty() ? to.text() : local,
                   "Enter the IPv4 address of one of this machine's interfaces."};
  if (sender.fd_ >= 0 && reach == Reach::Groups) return sender;
  const sockaddr_in address = socketAddress(to);
  if (sender.fd_ < 0 ||
      ::connect(sender.fd_, reinterpret_cast<const sockaddr*>(&address), sizeof address) != 0)
    return Failure{sentence("Nothing can be sent there (%1).", std::strerror(errno)), to.text(),
                   "Check the network cable and the address."};
  constexpr int kBuffer = 4 << 20;
  ::setsockopt(sender.fd_, SOL_SOCKET, SO_SNDBUF, &kBuffer, sizeof kBuffer);
  return sender;
}

UdpSender::Sent UdpSender::send(std::span<const std::uint8_t> packets, std::size_t size,
                                std::span<const std::uint8_t> which, std::span<const Endpoint> to) noexcept {
  if (!to.empty() || !segments_) return sendSingly(packets, size, which, to, 0);
  Sent sent;
  const auto stopped = sendSegmented(packets, size, which, sent);
  if (!stopped) return sent;
  segments_ = false;
  const Sent rest = sendSingly(packets, size, which, to, *stopped);
  sent.packets += rest.packets;
  sent.error = rest.error;
  return sent;
}

namespace {

/// That many packets cannot be given as one: by this kernel, by this interface, or at this size.
bool cannotSegment(int error) {
  return error == EINVAL || error == EIO || error == EMSGSIZE || error == EOPNOTSUPP || error == ENOPROTOOPT;
}

/// Up to kMaxSegments packets that are one message.
struct SegmentedMessage {
  std::array<iovec, UdpSender::kMaxSegments> parts;
  std::size_t count = 0;
  /// The place of its first packet among all.
  std::size_t first = 0;
  alignas(cmsghdr) std::array<char, CMSG_SPACE(sizeof(std::uint16_t))> control;

  void describe(msghdr& header, std::size_t size) {
    header = {};
    header.msg_iov = parts.data();
    header.msg_iovlen = count;
    if (count < 2) return;
    header.msg_control = control.data();
    header.msg_controllen = control.size();
    cmsghdr* words = CMSG_FIRSTHDR(&header);
    words->cmsg_level = SOL_UDP;
    words->cmsg_type = UDP_SEGMENT;
    words->cmsg_len = CMSG_LEN(sizeof(std::uint16_t));
    const auto segment = static_cast<std::uint16_t>(size);
    std::memcpy(CMSG_DATA(words), &segment, sizeof segment);
  }
};

}  // namespace

std::optional<std::size_t> UdpSender::sendSegmented(std::span<const std::uint8_t> packets, std::size_t size,
                                                    std::span<const std::uint8_t> which,
                                                    Sent& sent) noexcept {
  constexpr std::size_t kMessages = 16;
  std::array<SegmentedMessage, kMessages> messages;
  std::array<mmsghdr, kMessages> headers;
  std::size_t filled = 0;
  const auto flush = [&]() -> std::optional<std::size_t> {
    for (std::size_t m = 0; m < filled; ++m) messages[m].describe(headers[m].msg_hdr, size);
    std::size_t done = 0;
    for (int tries = 0; done < filled && tries < 4; ++tries) {
      const int now = ::sendmmsg(fd_, headers.data() + done, static_cast<unsigned>(filled - done), 0);
      if (now < 0 && cannotSegment(errno)) return messages[done].first;
      const bool isShort = now > 0 && static_cast<std::size_t>(now) < filled - done;
      if (now <= 0 || isShort) sent.error = now <= 0 ? errno : ECONNREFUSED;
      for (int m = 0; m < now; ++m) sent.packets += messages[done++].count;
    }
    filled = 0;
    messages[0].count = 0;
    return std::nullopt;
  };
  messages[0].count = 0;
  for (std::size_t i = 0; i < which.size(); ++i) {
    if (!which[i]) continue;
    SegmentedMessage& message = messages[filled];
    if (message.count == 0) message.first = i;
    message.parts[message.count++] = {const_cast<std::uint8_t*>(packets.data() + i * size), size};
    if (message.count < kMaxSegments) continue;
    if (++filled < kMessages)
      messages[filled].count = 0;
    else if (const auto stopped = flush())
      return stopped;
  }
  if (messages[filled].count > 0) ++filled;
  return filled > 0 ? flush() : std::nullopt;
}

UdpSender::Sent UdpSender::sendSingly(std::span<const std::uint8_t> packets, std::size_t size,
                                      std::span<const std::uint8_t> which, std::span<const Endpoint> to,
                                      std::size_t first) noexcept {
  constexpr std::size_t kBatch = 64;
  std::array<sockaddr_in, kBatch> addresses{};
  std::array<mmsghdr, kBatch> messages{};
  std::array<iovec, kBatch> places{};
  Sent sent;
  std::size_t filled = 0;
  const auto flush = [&] {
    std::size_t done = 0;
    // A refused packet's error is reported once and clears itself; what follows it is tried again.
    for (int tries = 0; done < filled && tries < 4; ++tries) {
      const int now = ::sendmmsg(fd_, messages.data() + done, static_cast<unsigned>(filled - done), 0);
      const bool isShort = now > 0 && static_cast<std::size_t>(now) < filled - done;
      // A batch that ends early met a "port unreachable" that the kernel does not name again.
      if (now <= 0 || isShort) sent.error = now <= 0 ? errno : ECONNREFUSED;
      if (now > 0) done += static_cast<std::size_t>(now);
    }
    sent.packets += done;
    filled = 0;
  };
  for (std::size_t i = first; i < which.size(); ++i) {
    if (!which[i]) continue;
    places[filled] = {const_cast<std::uint8_t*>(packets.data() + i * size), size};
    messages[filled].msg_hdr.msg_iov = &places[filled];
    messages[filled].msg_hdr.msg_iovlen = 1;
    if (!to.empty()) {
      addresses[filled] = socketAddress(to[i]);
      messages[filled].msg_hdr.msg_name = &addresses[filled];
      messages[filled].msg_hdr.msg_namelen = sizeof addresses[filled];
    }
    if (++filled == kBatch) flush();
  }
  if (filled > 0) flush();
  return sent;
}

}  // namespace chispa::link
