// SPDX-License-Identifier: GPL-3.0-or-later
#include "link/opcsender.h"

#include <algorithm>
#include <cerrno>

#include <netinet/tcp.h>
#include <poll.h>
#include <sys/socket.h>
#include <unistd.h>

#include "link/opc.h"
#include "link/socketaddress.h"

namespace chispa::link {

Result<std::unique_ptr<ControllerSender>> OpcSender::open(const Controller& controller,
                                                          std::vector<int> universes,
                                                          const HostLookup& lookup, RowFormat format) {
  const auto endpoint = lookup(controller.host, dataPort(controller));
  if (!endpoint) return endpoint.failure();
  if (!universes.empty() && (static_cast<std::size_t>(universes.back()) + 1) * kChannels > kOpcMostData + 1)
    return Failure{"An OPC message holds 65,535 bytes; the pixels of this controller need more.",
                   controller.name, "Hang some of them on another controller."};
  return std::unique_ptr<ControllerSender>(
      new OpcSender(controller, std::move(universes), *endpoint, format));
}

OpcSender::OpcSender(const Controller& controller, std::vector<int> universes, Endpoint endpoint,
                     RowFormat format)
    : ControllerSender(controller, std::move(universes)), endpoint_(endpoint) {
  const std::size_t length =
      universes_.empty()
          ? 0
          : std::min(kOpcMostData, (static_cast<std::size_t>(universes_.back()) + 1) * kChannels);
  message_.resize(kOpcHeaderSize + length, 0);
  const auto channel = static_cast<std::uint8_t>(std::clamp(controller.firstUniverse, 0, 255));
  writeOpcHeader(message_, channel, format.bits == 16 ? OpcCommand::Set16 : OpcCommand::Set8,
                 static_cast<std::uint16_t>(length));
}

OpcSender::~OpcSender() {
  if (fd_ >= 0) ::close(fd_);
}

void OpcSender::drop(int error, Instant now) noexcept {
  if (fd_ >= 0) ::close(fd_);
  fd_ = -1;
  connecting_ = false;
  left_ = 0;
  counters_->errors.fetch_add(1, std::memory_order_relaxed);
  noteTrouble(*counters_, error, now);
}

void OpcSender::connect(Instant now) noexcept {
  constexpr std::chrono::seconds kTryEvery{1};
  if (now - triedAt_ < kTryEvery) return;
  triedAt_ = now;
  fd_ = ::socket(AF_INET, SOCK_STREAM | SOCK_NONBLOCK | SOCK_CLOEXEC, 0);
  const sockaddr_in to = socketAddress(endpoint_);
  constexpr int kOn = 1;
  ::setsockopt(fd_, IPPROTO_TCP, TCP_NODELAY, &kOn, sizeof kOn);
  if (::connect(fd_, reinterpret_cast<const sockaddr*>(&to), sizeof to) == 0) return;
  if (errno == EINPROGRESS)
    connecting_ = true;
  else
    drop(errno, now);
}

bool OpcSender::isConnected(Instant now) noexcept {
  if (fd_ < 0) connect(now);
  if (fd_ < 0 || !connecting_) return fd_ >= 0;
  pollfd waiting{fd_, POLLOUT, 0};
  if (::poll(&waiting, 1, 0) <= 0) {
    constexpr std::chrono::seconds kGiveUp{3};
    if (now - triedAt_ > kGiveUp) drop(ETIMEDOUT, now);
    return false;
  }
  int error = 0;
  socklen_t size = sizeof error;
  ::getsockopt(fd_, SOL_SOCKET, SO_ERROR, &error, &size);
  connecting_ = false;
  if (error == 0) return true;
  drop(error, now);
  return false;
}

bool OpcSender::flush(Instant now) noexcept {
  while (left_ > 0) {
    const ssize_t sent = ::send(fd_, message_.data() + (message_.size() - left_), left_, MSG_NOSIGNAL);
    if (sent > 0) {
      left_ -= static_cast<std::size_t>(sent);
      counters_->bytes.fetch_add(static_cast<std::uint64_t>(sent), std::memory_order_relaxed);
    } else if (errno == EAGAIN || errno == EWOULDBLOCK) {
      return false;
    } else {
      drop(errno, now);
      return false;
    }
  }
  return true;
}

void OpcSender::send(std::span<const std::uint8_t> values, Instant now, bool all) noexcept {
  std::ranges::fill(which_, std::uint8_t{0});
  if (!isConnected(now) || !flush(now)) return;
  bool changed = false;
  const auto row = std::span(message_).subspan(kOpcHeaderSize);
  for (std::size_t i = 0; i < universes_.size(); ++i) {
    const std::size_t at = static_cast<std::size_t>(universes_[i]) * kChannels;
    if (at >= row.size()) continue;
    const auto wanted = values.subspan(i * kChannels, std::min(kChannels, row.size() - at));
    const auto held = row.subspan(at, wanted.size());
    if (std::equal(wanted.begin(), wanted.end(), held.begin())) continue;
    std::copy(wanted.begin(), wanted.end(), held.begin());
    changed = true;
  }
  if (!keepAlive_.isDue(changed, all, now)) return;
  std::ranges::fill(which_, std::uint8_t{1});
  left_ = message_.size();
  counters_->packets.fetch_add(1, std::memory_order_relaxed);
  counters_->frames.fetch_add(1, std::memory_order_relaxed);
  flush(now);
}

void OpcSender::endInDark(Instant now) noexcept {
  if (fd_ < 0 || connecting_) return;
  // A message that is under way is sent to its end first: what is still to leave of it turns black, and the
  // whole black one follows.
  const std::size_t begun = left_ > 0 ? message_.size() - left_ : 0;
  std::fill(message_.begin() + static_cast<std::ptrdiff_t>(std::max(kOpcHeaderSize, begun)), message_.end(),
            std::uint8_t{0});
  if (!flush(now)) return;
  std::fill(message_.begin() + kOpcHeaderSize, message_.end(), std::uint8_t{0});
  left_ = message_.size();
  flush(now);
}

void OpcSender::takeOver(ControllerSender& before, Instant now) noexcept {
  auto* same = dynamic_cast<OpcSender*>(&before);
  if (!same || endpoint_ != same->endpoint_ || same->message_.size() > message_.size() || same->left_ > 0) {
    before.endInDark(now);
    return;
  }
  // The connection goes on.
  std::swap(fd_, same->fd_);
  std::swap(connecting_, same->connecting_);
  triedAt_ = same->triedAt_;
}

}  // namespace chispa::link
