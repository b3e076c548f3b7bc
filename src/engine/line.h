// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <memory>
#include <vector>

#include "core/wire/dither.h"
#include "core/wire/framerate.h"
#include "engine/clock.h"
#include "engine/steadylight.h"
#include "link/sender.h"

namespace chispa::engine {

/// The usual time from frame to frame.
inline constexpr MonoTime kUsualPeriod{1'000'000'000 / kUsualFramesPerSecond};

/// When frames of a line are computed: the time from one step of the output to the next, and how many of them
/// make one of the line's own.
struct LinePace {
  MonoTime tick = kUsualPeriod;
  int ticks = 1;
  FrameRate rate = {};

  MonoTime period() const { return tick * ticks; }
};

/// A controller's way out: takes frames at its own pace and holds them back by its delay, if it has one.
/// Output thread.
class Line {
 public:
  /// `firstUniverse` is the place of its values in a frame's buffer, `index` the controller's in the show.
  Line(std::unique_ptr<link::ControllerSender> sender, std::size_t firstUniverse, std::size_t index,
       const Controller& controller, const LinePace& pace);

  link::ControllerSender& sender() { return *sender_; }
  const link::ControllerSender& sender() const { return *sender_; }
  std::size_t firstUniverse() const { return firstUniverse_; }
  std::size_t index() const { return index_; }
  /// How long after a step of the output this line's packets leave; the rest of its delay is whole steps.
  MonoTime late() const { return late_; }
  /// How far ahead of the score its light is computed.
  MonoTime lead() const { return lead_; }

  /// Once in each step of the output, before all else: notes whether the line takes this frame.
  bool turn(MonoTime now) noexcept;
  bool isTurn() const { return isTurn_; }
  /// For dithering: which of those that it was sent the frame is that it takes.
  DitherFrame dither() const { return ditherFrame(taken_, pace_.rate.framesPerSecond()); }

  /// Puts what stays as it is, but for dithering, in the place of the values; see SteadyLight. Once in each
  /// step, before offer(); `position` is the instant of the score that they show.
  void settle(std::span<std::uint8_t> values, Micros position) noexcept;
  /// True if all that the line sends is held as it is.
  bool isSteady() const noexcept { return steady_.isWhole(); }
  /// What universe `i` of the line shows, where the frame is of `position`.
  ShownFrame shownBy(std::size_t i, Micros position) const noexcept {
    return steady_.shownBy(i, {position, dither()});
  }

  /// A frame that was held back leaves in this step, or before the next.
  bool isLeaving(MonoTime now) const noexcept {
    return count_ > 0 && leavesAt_[first_] <= now + late_ + pace_.tick / 4;
  }
  /// Takes the values of a frame, if it is its turn. What is due leaves at once, or with leave() if it is
  /// late(). True if it sent.
  bool offer(std::span<const std::uint8_t> values, MonoTime now) noexcept;
  /// Sends what was held back until now. True if it sent.
  bool leave(MonoTime now) noexcept;
  /// Packets of what was sent are still to leave; see ControllerSender::hasMore().
  bool hasMore() const noexcept { return sender_->hasMore(); }
  /// Goes on where the line before it to the same controller was.
  void takeOver(const Line& before, MonoTime now) noexcept;
  /// Puts `sender` in the place of the line's own, which goes on where that was and is given back: for one
  /// that could not send any more.
  void replaceSender(std::unique_ptr<link::ControllerSender>& sender, bool isLit, MonoTime now) noexcept;
  /// Sends these values now, whatever is held back.
  void sendAtOnce(std::span<const std::uint8_t> values, MonoTime now) noexcept;

 private:
  void hold(std::span<const std::uint8_t> values, MonoTime leavesAt) noexcept;

  std::unique_ptr<link::ControllerSender> sender_;
  std::size_t firstUniverse_;
  std::size_t index_;
  LinePace pace_;
  MonoTime delay_{0};
  MonoTime late_{0};
  MonoTime lead_{0};
  /// When it takes the next frame.
  MonoTime next_{-1'000'000'000'000};
  bool isTurn_ = false;
  std::uint64_t taken_ = 0;
  SteadyLight steady_;
  /// Frames held back, as a ring, and when they leave; empty without a delay.
  std::vector<std::uint8_t> held_;
  std::vector<MonoTime> leavesAt_;
  std::size_t first_ = 0;
  std::size_t count_ = 0;
  bool hasBegun_ = false;
};

}  // namespace chispa::engine
