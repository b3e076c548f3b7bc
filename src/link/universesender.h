// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "link/keepalive.h"
#include "link/sender.h"

namespace chispa::link {

/// E1.31 and Art-Net: a packet a universe, each with a sequence number of its own; unicast, multicast or
/// broadcast.
class UniverseSender final : public ControllerSender {
 public:
  static Result<std::unique_ptr<ControllerSender>> open(const Controller& controller,
                                                        std::vector<int> universes, const E131Source& source,
                                                        const HostLookup& lookup);

  void send(std::span<const std::uint8_t> values, Instant now, bool all) noexcept override;
  bool hasMore() const noexcept override { return waitingCount_ > 0; }
  void sendMore(Instant now) noexcept override;
  void sync(Instant now) noexcept override;
  void terminate(Instant now) noexcept override;
  void endInDark(Instant now) noexcept override;
  void takeOver(ControllerSender& before, Instant now) noexcept override;

 private:
  UniverseSender(const Controller& controller, std::vector<int> universes, const E131Source& source,
                 Endpoint endpoint, UdpSender socket);
  std::span<std::uint8_t> packet(std::size_t i);
  std::span<std::uint8_t> values(std::size_t i);
  void darkenMarked(Instant now) noexcept;
  void number(std::size_t i) noexcept;
  void sendMarked(Instant now) noexcept;
  /// Sends the next of those that wait, no more than may leave in a row.
  void sendRow(Instant now, bool isRest) noexcept;

  Endpoint endpoint_;
  UdpSender socket_;
  Protocol protocol_;
  std::size_t packetSize_;
  /// Where each universe goes, if not all go to one place.
  std::vector<Endpoint> groups_;
  std::vector<std::uint8_t> packets_;
  std::vector<std::uint8_t> sequences_;
  std::vector<KeepAlive> keepAlive_;
  /// Which are still to leave, how many, and from where on the next are looked for, so that none has to wait
  /// for ever.
  std::vector<std::uint8_t> waiting_;
  std::size_t waitingCount_ = 0;
  std::size_t nextInRow_ = 0;
  std::vector<std::uint8_t> leaving_;
  /// The packet that says "now", if there is one.
  std::vector<std::uint8_t> syncPacket_;
  std::vector<Endpoint> syncGroup_;
  std::uint8_t syncSequence_ = 0;
  bool isSyncDue_ = false;
};

}  // namespace chispa::link
