// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <atomic>
#include <chrono>
#include <memory>
#include <vector>

#include "core/show/controller.h"
#include "link/ddp.h"
#include "link/e131.h"
#include "link/hostresolver.h"
#include "link/udp.h"

namespace chispa::link {

/// What a sender has done; read from any thread.
struct SendCounters {
  std::atomic<std::uint64_t> packets{0};
  std::atomic<std::uint64_t> bytes{0};
  std::atomic<std::uint64_t> errors{0};
  /// Frames of which anything was sent.
  std::atomic<std::uint64_t> frames{0};
  /// errno of the last failed send, when it was, and since when it is so, in nanoseconds of the monotonic
  /// clock.
  std::atomic<int> lastError{0};
  std::atomic<std::int64_t> lastErrorAt_ns{0};
  std::atomic<std::int64_t> troubleSince_ns{0};
};

/// Errors that come less often than this are trouble of their own, not the same one.
inline constexpr std::chrono::seconds kTroubleLasts{3};

/// Sends the universes of one controller in its protocol. All memory is taken when it is opened; sending
/// allocates nothing, takes no lock and never blocks. One thread at a time.
class ControllerSender {
 public:
  using Instant = std::chrono::nanoseconds;
  static constexpr std::size_t kChannels = 512;

  /// `universes` in the order of the values given to send(), rising. `lookup` says where hosts are, `format`
  /// what a row's values are, if they are alike. Fails if the address makes no sense or is not known yet, or
  /// if the universes are none of the protocol's.
  static Result<std::unique_ptr<ControllerSender>> open(const Controller& controller,
                                                        std::vector<int> universes, const E131Source& source,
                                                        const HostLookup& lookup = resolve,
                                                        RowFormat format = {});
  virtual ~ControllerSender() = default;
  ControllerSender(const ControllerSender&) = delete;
  ControllerSender& operator=(const ControllerSender&) = delete;

  ControllerId controller() const { return controller_; }
  const std::vector<int>& universes() const { return universes_; }

  /// Sends what changed of the universes' values (512 each, one behind the other), and what did not three
  /// times and then at least every 0.8 s (E1.31 §6.6.2; Art-Net 4 asks for 0.8–1 s). With `all`, sends all.
  virtual void send(std::span<const std::uint8_t> values, Instant now, bool all = false) noexcept = 0;
  /// True if packets of the last send() are still to leave: no more than Controller::maxPacketsInRow leave at
  /// once.
  virtual bool hasMore() const noexcept { return false; }
  /// Sends the next of them.
  virtual void sendMore(Instant) noexcept {}
  /// True if universe `i` was among those of the last send().
  bool wasSent(std::size_t i) const { return which_[i] != 0; }
  /// What was sent since the last call takes effect now, if the controller is told so (E1.31 §11, ArtSync).
  virtual void sync(Instant) noexcept {}

  /// Ends the stream of all universes where the protocol has a word for it (E1.31 §6.2.6: three packets that
  /// say so).
  virtual void terminate(Instant) noexcept {}
  /// Black on all universes, then terminate(): nothing stays lit that nobody drives any more.
  virtual void endInDark(Instant now) noexcept = 0;
  /// Continues the sequence numbers of `before`, and ends those of its universes that are not sent any more,
  /// in dark.
  virtual void takeOver(ControllerSender& before, Instant now) noexcept = 0;
  /// Another sends in its place while no light leaves: it must not say anything more, not even black.
  virtual void standDown() noexcept {}

  const SendCounters& counters() const { return *counters_; }
  std::shared_ptr<const SendCounters> sharedCounters() const { return counters_; }

 protected:
  ControllerSender(const Controller& controller, std::vector<int> universes);
  static void noteTrouble(SendCounters& counters, int error, Instant now) noexcept;
  /// Of a frame's packets; `isRest` if some of the same frame have been counted.
  void count(std::size_t wanted, std::size_t bytes, const UdpSender::Sent& sent, Instant now,
             bool isRest = false) noexcept;
  /// Controller::maxPacketsInRow, where 0 is as many as there are.
  std::size_t maxInRow() const noexcept { return maxInRow_; }

  ControllerId controller_;
  std::vector<int> universes_;
  std::vector<std::uint8_t> which_;
  std::shared_ptr<SendCounters> counters_ = std::make_shared<SendCounters>();

 private:
  std::size_t maxInRow_;
};

}  // namespace chispa::link
