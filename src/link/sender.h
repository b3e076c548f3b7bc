// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <atomic>
#include <chrono>
#include <memory>
#include <vector>

#include "core/show/controller.h"
#include "link/e131.h"
#include "link/udp.h"

namespace chispa::link {

/// What a sender has done; written by the output thread, read by any.
struct SendCounters {
  std::atomic<std::uint64_t> packets{0};
  std::atomic<std::uint64_t> bytes{0};
  std::atomic<std::uint64_t> errors{0};
  /// errno of the last failed send, and when it was, in nanoseconds of the monotonic clock.
  std::atomic<int> lastError{0};
  std::atomic<std::int64_t> lastErrorAt_ns{0};
};

/// Speaks to one controller: packets for all its universes, kept ready and sent in one go. Made on any thread, then
/// used by the output thread only; sending allocates nothing and never blocks.
class ControllerSender {
 public:
  using Instant = std::chrono::nanoseconds;

  /// `universes` in the order of the values given to send().
  static Result<std::unique_ptr<ControllerSender>> open(const Controller& controller, std::vector<int> universes,
                                                        const E131Source& source);

  ControllerId controller() const { return controller_; }
  const std::vector<int>& universes() const { return universes_; }

  /// Sends the universes whose values (512 each, one behind the other) changed, and unchanged ones three times and
  /// then at least every 0.8 s (E1.31 §6.6.2; Art-Net 4 asks for 0.8–1 s). With `all`, sends all.
  void send(std::span<const std::uint8_t> values, Instant now, bool all = false) noexcept;
  /// True if universe `i` was among those of the last send().
  bool wasSent(std::size_t i) const { return which_[i] != 0; }

  /// Ends the stream of all universes: for E1.31 three packets that say so (§6.2.6); Art-Net has no such word.
  void terminate() noexcept;
  /// Black on all universes, then terminate(): nothing stays lit that nobody drives any more.
  void endInDark() noexcept;
  /// Continues the sequence numbers of `before`, and ends those of its universes that are not sent any more, in dark.
  void takeOver(ControllerSender& before) noexcept;

  const SendCounters& counters() const { return *counters_; }
  std::shared_ptr<const SendCounters> sharedCounters() const { return counters_; }

 private:
  ControllerSender() = default;
  std::span<std::uint8_t> packet(std::size_t i);
  std::span<std::uint8_t> values(std::size_t i);
  void darkenMarked() noexcept;
  void number(std::size_t i) noexcept;
  void sendMarked(Instant now) noexcept;

  ControllerId controller_;
  Protocol protocol_ = Protocol::E131;
  Endpoint endpoint_;
  UdpSender socket_;
  std::size_t packetSize_ = 0;
  std::vector<int> universes_;
  std::vector<std::uint8_t> packets_;
  std::vector<std::uint8_t> sequences_;
  std::vector<std::uint8_t> which_;
  std::vector<int> repeats_;
  std::vector<Instant> sentAt_;
  std::shared_ptr<SendCounters> counters_ = std::make_shared<SendCounters>();
};

}  // namespace chispa::link
