// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <array>
#include <atomic>
#include <thread>

#include "link/sender.h"

namespace chispa::link {

/// A serial line as DMX512 needs it (ANSI E1.11-2008 §8): 250 kbit/s, eight bits, no parity, two stop bits.
class DmxLine {
 public:
  virtual ~DmxLine() = default;
  /// Holds the line low for `low` and then high for `high`; 0, or errno.
  virtual int sendBreak(std::chrono::microseconds low, std::chrono::microseconds high) = 0;
  /// Sends all of `bytes` and returns when they have left; 0, or errno.
  virtual int write(std::span<const std::uint8_t> bytes) = 0;
};

/// Opens an RS-485 adapter (or a pseudo-terminal that stands in for one). Fails if it is not there or cannot
/// be set so.
Result<std::unique_ptr<DmxLine>> openDmxLine(const std::string& path);

/// E1.11 serial DMX512: one universe, sent over and over by a thread of its own, as the standard's receivers
/// expect. An adapter that was unplugged is opened anew when it is back.
class SerialDmxSender final : public ControllerSender {
 public:
  static Result<std::unique_ptr<ControllerSender>> open(const Controller& controller,
                                                        std::vector<int> universes);
  SerialDmxSender(const Controller& controller, std::vector<int> universes, std::unique_ptr<DmxLine> line);
  ~SerialDmxSender() override;

  void send(std::span<const std::uint8_t> values, Instant now, bool all) noexcept override;
  void endInDark(Instant now) noexcept override;
  void takeOver(ControllerSender& before, Instant now) noexcept override;
  void terminate(Instant now) noexcept override;
  void standDown() noexcept override;

 private:
  /// What its thread does: nothing, the newest frame over and over, or that a few times more.
  enum class State { Silent, Sending, Ending };

  void run() noexcept;
  /// Sends one packet; opens the line anew if it was lost. 0, or errno.
  int sendPacket(std::span<const std::uint8_t> packet) noexcept;

  std::string path_;
  std::unique_ptr<DmxLine> line_;
  std::chrono::steady_clock::time_point triedAt_{};
  /// Values of the newest frame, a byte each, so that no lock is needed: a receiver sees slots of two frames
  /// mixed at worst.
  std::array<std::atomic<std::uint8_t>, kChannels> slots_{};
  std::atomic<State> state_{State::Silent};
  std::atomic<bool> stopping_{false};
  std::thread thread_;
};

}  // namespace chispa::link
