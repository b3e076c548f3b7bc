// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "link/keepalive.h"
#include "link/sender.h"

namespace chispa::link {

/// DDP: the universes' values are one row of bytes, universe n beginning at byte 512 n; sent in packets of up
/// to 1,440 bytes, whole frames or not at all, the last with the push flag.
class DdpSender final : public ControllerSender {
 public:
  static Result<std::unique_ptr<ControllerSender>> open(const Controller& controller,
                                                        std::vector<int> universes, const HostLookup& lookup,
                                                        RowFormat format);

  void send(std::span<const std::uint8_t> values, Instant now, bool all) noexcept override;
  bool hasMore() const noexcept override { return next_ < packetWhich_.size(); }
  void sendMore(Instant now) noexcept override { sendRow(now, true); }
  void endInDark(Instant now) noexcept override;
  void takeOver(ControllerSender& before, Instant now) noexcept override;

 private:
  DdpSender(const Controller& controller, std::vector<int> universes, Endpoint endpoint, UdpSender socket,
            RowFormat format);
  /// Writes values from byte `offset` of the row on into the packets; true if they were others.
  bool put(std::size_t offset, std::span<const std::uint8_t> values) noexcept;
  void sendFrame(Instant now) noexcept;
  /// Sends packets from `next_` on, no more than may leave in a row.
  void sendRow(Instant now, bool isRest) noexcept;
  std::size_t lengthOf(std::size_t packet) const noexcept;

  Endpoint endpoint_;
  UdpSender socket_;
  std::uint8_t dataType_;
  std::size_t length_ = 0;
  std::vector<std::uint8_t> packets_;
  std::vector<std::uint8_t> packetWhich_;
  /// The first packet that is still to leave; behind the last if none is.
  std::size_t next_ = 0;
  std::uint8_t sequence_ = 0;
  Instant sendingAt_{0};
  KeepAlive keepAlive_;
};

}  // namespace chispa::link
