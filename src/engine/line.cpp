// SPDX-License-Identifier: GPL-3.0-or-later
#include "engine/line.h"

#include <algorithm>

namespace chispa::engine {

Line::Line(std::unique_ptr<link::ControllerSender> sender, std::size_t firstUniverse, std::size_t index,
           const Controller& controller, const LinePace& pace)
    : sender_(std::move(sender)),
      firstUniverse_(firstUniverse),
      index_(index),
      pace_(pace),
      steady_(sender_->universes().size()) {
  const MonoTime signedDelay(static_cast<std::int64_t>(controller.delay_ms * 1e6));
  delay_ = std::max(MonoTime(0), signedDelay);
  lead_ = std::max(MonoTime(0), -signedDelay);
  late_ = delay_ % pace.tick;
  // So late that the next step would wait for it: that takes it along.
  if (late_ > pace.tick * 4 / 5) {
    delay_ += pace.tick - late_;
    late_ = MonoTime(0);
  }
  if (delay_ == MonoTime(0)) return;
  leavesAt_.resize(static_cast<std::size_t>(delay_ / pace.period()) + 2);
  held_.resize(leavesAt_.size() * sender_->universes().size() * link::ControllerSender::kChannels);
}

bool Line::turn(MonoTime now) noexcept {
  isTurn_ = now >= next_ - pace_.tick / 4;
  if (!isTurn_) return false;
  next_ = (now - next_ < pace_.period() ? next_ : now) + pace_.period();
  ++taken_;
  return true;
}

void Line::settle(std::span<std::uint8_t> values, Micros position) noexcept {
  if (isTurn_)
    steady_.settle(values, {position, dither()});
  else
    steady_.keep(values);
}

void Line::hold(std::span<const std::uint8_t> values, MonoTime leavesAt) noexcept {
  // One that was never asked to leave makes room.
  if (count_ == leavesAt_.size()) {
    first_ = (first_ + 1) % leavesAt_.size();
    --count_;
  }
  const std::size_t slot = (first_ + count_++) % leavesAt_.size();
  leavesAt_[slot] = leavesAt;
  std::copy(values.begin(), values.end(), held_.begin() + static_cast<std::ptrdiff_t>(slot * values.size()));
}

bool Line::offer(std::span<const std::uint8_t> values, MonoTime now) noexcept {
  if (isTurn_) {
    const bool isHeld = delay_ > MonoTime(0);
    if (isHeld) hold(values, now + delay_);
    // The first frame stands for those before it.
    if (!isHeld || !std::exchange(hasBegun_, true)) {
      sender_->send(values, now);
      return true;
    }
  }
  return late_ == MonoTime(0) && leave(now);
}

bool Line::leave(MonoTime now) noexcept {
  if (!isLeaving(now - late_)) return false;
  const std::size_t size = held_.size() / leavesAt_.size();
  sender_->send(std::span(held_).subspan(first_ * size, size), now);
  first_ = (first_ + 1) % leavesAt_.size();
  --count_;
  return true;
}

void Line::takeOver(const Line& before, MonoTime now) noexcept {
  sender_->takeOver(*before.sender_, now);
  next_ = before.next_;
  taken_ = before.taken_;
}

void Line::replaceSender(std::unique_ptr<link::ControllerSender>& sender, bool isLit, MonoTime now) noexcept {
  if (isLit)
    sender->takeOver(*sender_, now);
  else
    sender_->standDown();
  std::swap(sender, sender_);
}

void Line::sendAtOnce(std::span<const std::uint8_t> values, MonoTime now) noexcept {
  hasBegun_ = false;
  count_ = 0;
  sender_->send(values, now, true);
}

}  // namespace chispa::engine
