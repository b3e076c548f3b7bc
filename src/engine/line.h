// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <memory>
#include <vector>

#include "engine/clock.h"
#include "link/sender.h"

namespace chispa::engine {

/// A controller's way out: holds frames back by its delay, if that is one, and leaves out those that it
/// cannot take. Output thread.
class Line {
 public:
  /// `firstUniverse` is the place of its values in a frame's buffer; `period` the time from frame to frame.
  Line(std::unique_ptr<link::ControllerSender> sender, std::size_t firstUniverse,
       const Controller& controller, MonoTime period);

  link::ControllerSender& sender() { return *sender_; }
  const link::ControllerSender& sender() const { return *sender_; }
  std::size_t firstUniverse() const { return firstUniverse_; }
  /// How long after a frame's instant this line's packets leave; the rest of its delay is whole frames.
  MonoTime late() const { return late_; }

  /// How far ahead of the score its light is computed.
  MonoTime lead() const { return lead_; }

  /// Takes the values of a frame; those that are due leave at once, or with leave() if it is late(). True if
  /// it sent.
  bool offer(std::span<const std::uint8_t> values, MonoTime now) noexcept;
  /// Sends what is due now, late() after the frame. True if it sent.
  bool leave(MonoTime now) noexcept;
  /// Puts `sender` in the place of the line's own, which goes on where that was and is given back: for one
  /// that could not send any more.
  void replaceSender(std::unique_ptr<link::ControllerSender>& sender, bool isLit, MonoTime now) noexcept;
  /// Sends these values now, whatever is held back.
  void sendAtOnce(std::span<const std::uint8_t> values, MonoTime now) noexcept;

 private:
  bool sendDue(std::span<const std::uint8_t> values, MonoTime now) noexcept;

  std::unique_ptr<link::ControllerSender> sender_;
  std::size_t firstUniverse_;
  MonoTime late_{0};
  MonoTime lead_{0};
  /// Frames held back, one more than the delay has, as a ring; empty without a delay.
  std::vector<std::uint8_t> held_;
  std::size_t slots_ = 0;
  std::size_t next_ = 0;
  bool isEmpty_ = true;
  /// Least time between frames, and when the last left.
  MonoTime between_{0};
  MonoTime sentAt_{-1'000'000'000'000};
};

}  // namespace chispa::engine
