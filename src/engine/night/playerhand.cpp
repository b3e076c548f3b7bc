// SPDX-License-Identifier: GPL-3.0-or-later
#include "engine/night/playerhand.h"

namespace chispa::engine {

using namespace std::chrono_literals;

void PlayerHand::read(const Score& score) {
  const auto there = sounds_.find(score.id);
  if (score.audio.empty() || (there != sounds_.end() && there->second.file == score.audio)) return;
  // What plays, and what comes: no evening of music is kept in memory.
  constexpr std::size_t kMax = 2;
  if (sounds_.size() >= kMax)
    std::erase_if(sounds_, [&](const auto& entry) { return !asked() || entry.first != asked()->score; });
  sounds_[score.id] = {
      score.audio, std::async(std::launch::async, [load = load_, own = score] { return load(own); }).share()};
}

std::optional<PlayerHand::Clip> PlayerHand::soundIfThere(const Score& score) {
  const auto sound = sounds_.find(score.id);
  if (sound == sounds_.end()) return Clip();
  if (sound->second.clip.wait_for(0s) != std::future_status::ready) return std::nullopt;
  return sound->second.clip.get();
}

/// Waits for it: a piece is not to begin in silence.
PlayerHand::Clip PlayerHand::soundNow(const Score& score) {
  read(score);
  const auto sound = sounds_.find(score.id);
  return sound == sounds_.end() ? nullptr : sound->second.clip.get();
}

}  // namespace chispa::engine
