// SPDX-License-Identifier: GPL-3.0-or-later
#include "engine/line.h"

#include <algorithm>

namespace chispa::engine {

Line::Line(std::unique_ptr<link::ControllerSender> sender, std::size_t firstUniverse,
           const Controller& controller, MonoTime period)
    : sender_(std::move(sender)), firstUniverse_(firstUniverse) {
  const MonoTime signedDelay(static_cast<std::int64_t>(controller.delay_ms * 1e6));
  const MonoTime delay = std::max(MonoTime(0), signedDelay);
  lead_ = std::max(MonoTime(0), -signedDelay);
  auto frames = delay / period;
  late_ = delay - frames * period;
  // So late that the next frame would wait for it: that frame takes it along.
  if (late_ > period * 4 / 5) {
    ++frames;
    late_ = MonoTime(0);
  }
  if (delay > MonoTime(0)) slots_ = static_cast<std::size_t>(frames) + 1;
  held_.resize(slots_ * sender_->universes().size() * link::ControllerSender::kChannels);
  // Half a period is forgiven, so that a rate of the frames' own leaves none out.
  if (controller.mostFramesPerSecond > 0)
    between_ = std::max(
        MonoTime(0), MonoTime(static_cast<std::int64_t>(1e9 / controller.mostFramesPerSecond)) - period / 2);
}

bool Line::sendDue(std::span<const std::uint8_t> values, MonoTime now) noexcept {
  if (now - sentAt_ < between_) return false;
  sentAt_ = now;
  sender_->send(values, now);
  return true;
}

bool Line::offer(std::span<const std::uint8_t> values, MonoTime now) noexcept {
  if (slots_ == 0) return sendDue(values, now);
  const std::size_t size = values.size();
  // The first frame stands for those before it.
  const std::size_t copies = std::exchange(isEmpty_, false) ? slots_ : 1;
  for (std::size_t i = 0; i < copies; ++i) {
    std::copy(values.begin(), values.end(), held_.begin() + static_cast<std::ptrdiff_t>(next_ * size));
    next_ = (next_ + 1) % slots_;
  }
  return late_ > MonoTime(0) ? false : leave(now);
}

bool Line::leave(MonoTime now) noexcept {
  const std::size_t size = held_.size() / std::max<std::size_t>(1, slots_);
  return !isEmpty_ && sendDue(std::span(held_).subspan(next_ * size, size), now);
}

void Line::replaceSender(std::unique_ptr<link::ControllerSender>& sender, bool isLit, MonoTime now) noexcept {
  if (isLit)
    sender->takeOver(*sender_, now);
  else
    sender_->standDown();
  std::swap(sender, sender_);
}

void Line::sendAtOnce(std::span<const std::uint8_t> values, MonoTime now) noexcept {
  isEmpty_ = true;
  sentAt_ = now;
  sender_->send(values, now, true);
}

}  // namespace chispa::engine
