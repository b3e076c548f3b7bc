// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "link/keepalive.h"
#include "link/sender.h"

namespace chispa::link {

/// Open Pixel Control: the row of a controller as one message, over a TCP connection that is made anew
/// whenever it is lost. Nothing waits for it: a frame that the other side does not take in time is finished
/// before the next one begins.
class OpcSender final : public ControllerSender {
 public:
  static Result<std::unique_ptr<ControllerSender>> open(const Controller& controller,
                                                        std::vector<int> universes, const HostLookup& lookup,
                                                        RowFormat format);
  ~OpcSender() override;

  void send(std::span<const std::uint8_t> values, Instant now, bool all) noexcept override;
  void endInDark(Instant now) noexcept override;
  void takeOver(ControllerSender& before, Instant now) noexcept override;

 private:
  OpcSender(const Controller& controller, std::vector<int> universes, Endpoint endpoint, RowFormat format);
  bool isConnected(Instant now) noexcept;
  void connect(Instant now) noexcept;
  void drop(int error, Instant now) noexcept;
  bool flush(Instant now) noexcept;

  Endpoint endpoint_;
  int fd_ = -1;
  bool connecting_ = false;
  Instant triedAt_{-1'000'000'000'000};
  /// The message: header and row; and how much of it the other side has not taken yet.
  std::vector<std::uint8_t> message_;
  std::size_t left_ = 0;
  KeepAlive keepAlive_;
};

}  // namespace chispa::link
