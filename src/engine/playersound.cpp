// SPDX-License-Identifier: GPL-3.0-or-later
// A player and the sound that it follows.
#include <algorithm>

#include "engine/player.h"

namespace chispa::engine {
namespace {

/// Differences beyond this are jumped, smaller ones eased away.
constexpr Micros kJump{40'000};
constexpr MonoTime kReviveEvery = std::chrono::seconds(2);

}  // namespace

void Player::reviveSound(MonoTime now) {
  if (!clip_ || !sound_->isLost() || now - soundTriedAt_ < kReviveEvery) return;
  soundTriedAt_ = now;
  if (!sound_->reopen()) return;
  clipBegan_ = Micros(0);
  const Micros at = place_.inSound(transport_.get().positionAt(now));
  if (at >= Micros(0) && at < clip_->length()) sound_->play(clip_, at);
}

void Player::correctToSound(MonoTime now) {
  if (!clip_) return;
  auto heard = sound_->heard();
  if (heard) *heard -= clipBegan_;
  // What was there before is still heard: the clock has gone on by a moment.
  if (heard && *heard < Micros(0)) return;
  if (!heard || *heard > clip_->length()) {
    // No sound to follow: after the wait, the clock alone counts.
    if (waitingForSound_ && now - startedAt_ > kMaxWaitForSound) waitingForSound_ = false;
    return;
  }
  TransportState state = transport_.get();
  const Micros at = place_.inScore(*heard);
  const Micros off = at - state.positionAt(now);
  const bool jump = waitingForSound_ || off > kJump || off < -kJump;
  waitingForSound_ = false;
  constexpr int kEase = 16;
  state.from = jump ? at : state.positionAt(now) + off / kEase;
  state.since = now;
  publish(state);
}

void Player::setSound(std::shared_ptr<const AudioClip> clip, SoundPlace place) {
  const std::scoped_lock lock(mutex_);
  clip_ = std::move(clip);
  place_ = place;
}

void Player::hush() {
  const std::scoped_lock lock(mutex_);
  if (!transport_.get().playing) sound_->stop();
}

void Player::setSoundDevice(const std::string& name) {
  const std::scoped_lock lock(mutex_);
  sound_->setDevice(name);
}

}  // namespace chispa::engine
