// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <cstdint>
#include <optional>
#include <span>
#include <string>

#include "core/base/result.h"

namespace chispa::link {

/// An IPv4 address and UDP port, host byte order.
struct Endpoint {
  std::uint32_t address = 0;
  std::uint16_t port = 0;

  bool operator==(const Endpoint&) const = default;
  std::string text() const;
};

/// Looks `host` up: dotted numbers at once, names through the resolver, which may take seconds; never call it
/// from the output thread.
Result<Endpoint> resolve(const std::string& host, int port);

/// Whom a socket sends to: one address, multicast groups, or all of a network.
enum class Reach { One, Groups, Broadcast };

/// A non-blocking UDP socket. One that sends to one address is connected, so that "port unreachable" comes
/// back as an error. One thread at a time.
class UdpSender {
 public:
  UdpSender() = default;
  ~UdpSender();
  UdpSender(UdpSender&& other) noexcept;
  UdpSender& operator=(UdpSender&& other) noexcept;

  /// A socket to `to`, or to any group or broadcast address. `local` is the address of the interface that
  /// those leave by; empty for the system's choice.
  static Result<UdpSender> open(Endpoint to, Reach reach = Reach::One, const std::string& local = {});

  /// What became of a batch: packets handed to the kernel, and the last error's number (0: none).
  struct Sent {
    std::size_t packets = 0;
    int error = 0;
  };
  /// Sends packets of one size lying one behind the other, those whose place in `which` is set. Never blocks;
  /// what the kernel does not take is dropped and shows in `packets`. Packet i goes to `to[i]`, or to the one
  /// that was opened if `to` is empty: then the kernel is given up to kMaxSegments of them as one, which it
  /// cuts up again (UDP_SEGMENT, Linux 4.18), where it and the interface can do that.
  Sent send(std::span<const std::uint8_t> packets, std::size_t size, std::span<const std::uint8_t> which,
            std::span<const Endpoint> to = {}) noexcept;

  /// Packets that are handed over as one.
  static constexpr std::size_t kMaxSegments = 16;
  /// False once the kernel or the interface has turned that down.
  bool handsOverMany() const { return segments_; }
  void handOverMany(bool on) { segments_ = on; }

 private:
  /// The marked ones among `which`, from `first` on, one by one or many as one. The latter gives back where
  /// it had to stop because that cannot be done.
  Sent sendSingly(std::span<const std::uint8_t> packets, std::size_t size,
                  std::span<const std::uint8_t> which, std::span<const Endpoint> to,
                  std::size_t first) noexcept;
  std::optional<std::size_t> sendSegmented(std::span<const std::uint8_t> packets, std::size_t size,
                                           std::span<const std::uint8_t> which, Sent& sent) noexcept;

  int fd_ = -1;
  bool segments_ = true;
};

}  // namespace chispa::link
