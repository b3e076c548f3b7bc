// SPDX-License-Identifier: GPL-3.0-or-later
#include "engine/night/joininghand.h"

#include <algorithm>
#include <utility>

namespace chispa::engine {
namespace {

/// Where what follows is late, the last light stays.
PlayedPart wholeOf(const Score& score, bool isLooped) {
  return {Micros(0), score.length, isLooped, true};
}

}  // namespace

void JoiningHand::light(LookId look, float value) {
  player_.live(LiveSource::SetList, {LiveEvent::Kind::Light, look.value, value});
}

void JoiningHand::prepare(ScoreId id, Micros fade) {
  player_.follow({}, nullptr, {});
  next_.reset();
  const Score* score = scoreOf(id);
  if (!score) return;
  read(*score);
  next_ = Next{id, fade};
}

/// The next score joins the one that plays once its sound is there.
void JoiningHand::orderNext() {
  if (!next_ || next_->isOrdered || asked_->isLooped || asked_->rate != 1) return;
  const Score* score = scoreOf(next_->score);
  if (!score) return next_.reset();
  auto clip = soundIfThere(*score);
  if (!clip) return;
  // A score that plays once more has nothing to fade from.
  player_.output().fadeInto(score->id, score->id == asked_->score ? Micros(0) : next_->fade);
  next_->isOrdered = true;
  next_->hasSound = *clip != nullptr;
  player_.follow(score->id, *std::move(clip), wholeOf(*score, false));
}

void JoiningHand::playScore(const ScorePlay& play) {
  const Score* score = scoreOf(play.score);
  if (!score) return;
  const auto next = std::exchange(next_, std::nullopt);
  const bool hasJoined = hasNextBegun() && next && next->isOrdered && next->score == play.score;
  followed_ = player_.followed();
  asked_ = play;
  if (hasJoined) {
    hasSound_ = next->hasSound;
    player_.setLoop(play.isLooped);
  } else {
    Clip clip = play.rate == 1 ? soundNow(*score) : nullptr;
    hasSound_ = clip != nullptr;
    player_.setSound(std::move(clip), {Micros(0), play.rate});
    player_.output().fadeInto(play.score, play.fade);
    player_.play(play.score, play.from, wholeOf(*score, play.isLooped));
  }
  begun(play);
}

void JoiningHand::stopScore(Micros fade) {
  asked_.reset();
  next_.reset();
  player_.output().fadeInto({}, fade);
  player_.pause();
  player_.seek({}, Micros(0));
  followed_ = player_.followed();
}

std::optional<Micros> JoiningHand::scorePosition() {
  if (!asked_) return std::nullopt;
  orderNext();
  const Micros position = player_.position();
  const Score* score = scoreOf(asked_->score);
  if (!score) return position;
  // It plays on in the one that has joined it.
  if (hasNextBegun()) return score->length;
  // What joins it begins by itself: as long as it plays it is not over before that.
  const bool isJoined = next_ && next_->isOrdered && player_.isPlaying();
  const Micros last = score->length - Micros(1);
  if (isJoined) return std::min(position, last);
  return position >= last ? score->length : position;
}

}  // namespace chispa::engine
