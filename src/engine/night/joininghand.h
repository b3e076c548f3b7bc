// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <memory>
#include <optional>

#include "engine/night/stagehand.h"
#include "engine/player.h"

namespace chispa::engine {

/// Performs on a player; where the sound of the next score is there in time, it joins that of the present one
/// without a gap. Whoever has scores and sounds derives from it.
class JoiningHand : public Stagehand {
 public:
  explicit JoiningHand(Player& player) : player_(player) {}

  void playScore(const ScorePlay& play) override;
  void stopScore(Micros fade) override;
  std::optional<Micros> scorePosition() override;
  void prepare(ScoreId score, Micros fade) override;
  void lightLook(LookId look) override { light(look, 1); }
  void endLook(LookId look) override { light(look, 0); }

 protected:
  using Clip = std::shared_ptr<const AudioClip>;

  Player& player() { return player_; }
  /// What was asked for last, and not its end.
  const std::optional<ScorePlay>& asked() const { return asked_; }
  /// What plays has its sound; false too for a silent score.
  bool hasSound() const { return hasSound_; }
  virtual const Score* scoreOf(ScoreId id) const = 0;
  /// The sound of a score, null if it has none; nothing while it is being read.
  virtual std::optional<Clip> soundIfThere(const Score& score) = 0;
  /// The same for a score that plays now; null too while it is being read.
  virtual Clip soundNow(const Score& score) { return soundIfThere(score).value_or(nullptr); }
  /// This score plays next: it may be read.
  virtual void read(const Score&) {}
  /// A score has begun, or joined the one before it.
  virtual void begun(const ScorePlay&) {}

 private:
  /// What is to join, or has been told to.
  struct Next {
    ScoreId score;
    Micros fade{0};
    bool isOrdered = false;
    bool hasSound = false;
  };
  void light(LookId look, float value);
  void orderNext();
  bool hasNextBegun() const { return player_.followed() != followed_; }

  Player& player_;
  std::optional<ScorePlay> asked_;
  std::optional<Next> next_;
  bool hasSound_ = false;
  /// How many had joined when the present score was asked for.
  std::uint64_t followed_ = 0;
};

}  // namespace chispa::engine
