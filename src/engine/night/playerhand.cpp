// SPDX-License-Identifier: GPL-3.0-or-later
#include "engine/night/playerhand.h"

namespace chispa::engine {

void PlayerHand::light(LookId look, float value) {
  player_.live(LiveSource::SetList, {LiveEvent::Kind::Light, look.value, value});
}

void PlayerHand::prepare(ScoreId id) {
  const Score* score = find(show_.scores, id);
  const auto there = sounds_.find(id);
  if (!score || score->audio.empty() || (there != sounds_.end() && there->second.file == score->audio))
    return;
  // What plays, and what comes: no evening of music is kept in memory.
  constexpr std::size_t kMost = 2;
  if (sounds_.size() >= kMost) std::erase_if(sounds_, [&](const auto& entry) { return entry.first != id; });
  sounds_[id] = {score->audio,
                 std::async(std::launch::async, [load = load_, own = *score] { return load(own); }).share()};
}

void PlayerHand::playScore(const ScorePlay& play) {
  const Score* score = find(show_.scores, play.score);
  if (!score) return;
  std::shared_ptr<const AudioClip> clip;
  if (play.rate == 1) {
    prepare(play.score);
    const auto sound = sounds_.find(play.score);
    if (sound != sounds_.end()) clip = sound->second.clip.get();
  }
  isPlaying_ = true;
  player_.setSound(std::move(clip), {Micros(0), play.rate});
  player_.output().fadeInto(play.score, play.fade);
  player_.play(play.score, play.from, {Micros(0), score->length, play.isLooped});
}

void PlayerHand::stopScore(Micros fade) {
  isPlaying_ = false;
  player_.output().fadeInto({}, fade);
  player_.pause();
  player_.seek({}, Micros(0));
}

std::optional<Micros> PlayerHand::scorePosition() {
  return isPlaying_ ? std::optional(player_.position()) : std::nullopt;
}

}  // namespace chispa::engine
