// SPDX-License-Identifier: GPL-3.0-or-later
#include "engine/soundlistener.h"

namespace chispa::engine {

std::shared_ptr<HeardBox> makeHeardBox() {
  auto box = std::make_shared<HeardBox>();
  box->resize(0);
  return box;
}

SoundListener::SoundListener(std::shared_ptr<HeardBox> box, std::shared_ptr<Clock> clock)
    : box_(std::move(box)), clock_(std::move(clock)), thread_([this] { run(); }) {}

SoundListener::~SoundListener() {
  {
    const std::scoped_lock lock(mutex_);
    isLeaving_ = true;
  }
  came_.notify_one();
  thread_.join();
  publish(false);
}

void SoundListener::take(std::span<const float> mono) {
  // Where the computer cannot keep up, what is old is not worth hearing.
  constexpr std::size_t kMax = AudioClip::kRate * 2;
  {
    const std::scoped_lock lock(mutex_);
    if (waiting_.size() > kMax) waiting_.clear();
    waiting_.insert(waiting_.end(), mono.begin(), mono.end());
    waitingUntil_ = clock_->now();
  }
  came_.notify_one();
}

SoundListener::Meter SoundListener::meter() const {
  const std::scoped_lock lock(mutex_);
  return meter_;
}

void SoundListener::run() {
  std::vector<float> taken;
  MonoTime until{0};
  while (true) {
    {
      std::unique_lock lock(mutex_);
      came_.wait(lock, [this] { return isLeaving_ || !waiting_.empty(); });
      if (isLeaving_) return;
      taken.swap(waiting_);
      waiting_.clear();
      until = waitingUntil_;
    }
    hearing_.hear(taken);
    box_->filling().at = until;
    publish(true);
    const HeardMusic& heard = hearing_.now();
    const std::scoped_lock lock(mutex_);
    meter_ = {heard.loudness, heard.beat_s > 0 ? 60 / heard.beat_s : 0, heard.sureness};
  }
}

void SoundListener::publish(bool isOn) {
  HeardNow& now = box_->filling();
  if (isOn) now.music = hearing_.now();
  now.isOn = isOn;
  box_->publish();
}

}  // namespace chispa::engine
