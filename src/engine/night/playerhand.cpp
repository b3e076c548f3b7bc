// SPDX-License-Identifier: GPL-3.0-or-later
#include "engine/night/playerhand.h"

#include <algorithm>
#include <utility>

namespace chispa::engine {

using namespace std::chrono_literals;

void PlayerHand::light(LookId look, float value) {
  player_.live(LiveSource::SetList, {LiveEvent::Kind::Light, look.value, value});
}

void PlayerHand::load(ScoreId id) {
  const Score* score = find(show_.scores, id);
  const auto there = sounds_.find(id);
  if (!score || score->audio.empty() || (there != sounds_.end() && there->second.file == score->audio))
    return;
  // What plays, and what comes: no evening of music is kept in memory.
  constexpr std::size_t kMost = 2;
  if (sounds_.size() >= kMost)
    std::erase_if(sounds_, [&](const auto& entry) { return !asked_ || entry.first != asked_->score; });
  sounds_[id] = {score->audio,
                 std::async(std::launch::async, [load = load_, own = *score] { return load(own); }).share()};
}

void PlayerHand::prepare(ScoreId id, Micros fade) {
  player_.follow({}, nullptr, {});
  coming_.reset();
  joined_ = {};
  if (!id) return;
  load(id);
  coming_ = Coming{id, fade};
}

/// A score joins the one that plays once its sound is there.
void PlayerHand::followIfReady() {
  if (!coming_ || !asked_ || asked_->isLooped || asked_->rate != 1) return;
  const Score* score = find(show_.scores, coming_->score);
  const auto sound = sounds_.find(coming_->score);
  if (!score) return coming_.reset();
  if (sound != sounds_.end() && sound->second.clip.wait_for(0s) != std::future_status::ready) return;
  // A score that plays once more has nothing to fade from.
  player_.output().fadeInto(score->id, score->id == asked_->score ? Micros(0) : coming_->fade);
  player_.follow(score->id, sound != sounds_.end() ? sound->second.clip.get() : nullptr,
                 {Micros(0), score->length, false});
  joined_ = score->id;
  coming_.reset();
}

void PlayerHand::playScore(const ScorePlay& play) {
  const Score* score = find(show_.scores, play.score);
  if (!score) return;
  const bool hasJoined = player_.followed() != followed_ && joined_ == play.score;
  followed_ = player_.followed();
  joined_ = {};
  asked_ = play;
  coming_.reset();
  if (hasJoined) return player_.setLoop(play.isLooped);
  std::shared_ptr<const AudioClip> clip;
  if (play.rate == 1) {
    load(play.score);
    const auto sound = sounds_.find(play.score);
    if (sound != sounds_.end()) clip = sound->second.clip.get();
  }
  player_.setSound(std::move(clip), {Micros(0), play.rate});
  player_.output().fadeInto(play.score, play.fade);
  player_.play(play.score, play.from, {Micros(0), score->length, play.isLooped});
}

void PlayerHand::stopScore(Micros fade) {
  asked_.reset();
  coming_.reset();
  joined_ = {};
  player_.output().fadeInto({}, fade);
  player_.pause();
  player_.seek({}, Micros(0));
  followed_ = player_.followed();
}

std::optional<Micros> PlayerHand::scorePosition() {
  if (!asked_) return std::nullopt;
  followIfReady();
  const Score* score = find(show_.scores, asked_->score);
  // It plays on in the one that has joined it.
  if (player_.followed() != followed_ && score) return score->length;
  const Micros position = player_.position();
  // What joins it begins by itself: as long as it plays it is not over before that.
  const bool isJoined = joined_ && !coming_ && player_.isPlaying() && score;
  return isJoined ? std::min(position, score->length - Micros(1)) : position;
}

}  // namespace chispa::engine
