// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <functional>
#include <future>
#include <map>
#include <memory>

#include "engine/night/stagehand.h"
#include "engine/player.h"

namespace chispa::engine {

/// Performs on a player without a window.
class PlayerHand final : public Stagehand {
 public:
  /// The sound of a score, or null; called on threads of its own.
  using LoadSound = std::function<std::shared_ptr<const AudioClip>(const Score&)>;

  PlayerHand(Player& player, LoadSound load) : player_(player), load_(std::move(load)) {}

  void setShow(const Show& show) { show_ = show; }
  void playScore(const ScorePlay& play) override;
  void stopScore(Micros fade) override;
  std::optional<Micros> scorePosition() override;
  void prepare(ScoreId score, Micros fade) override;
  void lightLook(LookId look) override { light(look, 1); }
  void endLook(LookId look) override { light(look, 0); }
  void switchLight(bool on) override { player_.switchLight(on); }

 private:
  struct Loading {
    std::string file;
    std::shared_future<std::shared_ptr<const AudioClip>> clip;
  };
  void light(LookId look, float value);
  void load(ScoreId score);
  void followIfReady();

  Player& player_;
  LoadSound load_;
  Show show_;
  std::map<ScoreId, Loading> sounds_;
  /// The score that was asked for, and not its end.
  std::optional<ScorePlay> asked_;
  /// What is to join it, until that is ordered.
  struct Coming {
    ScoreId score;
    Micros fade{0};
  };
  std::optional<Coming> coming_;
  /// What was ordered to join, and how many had joined when the present score was asked for.
  ScoreId joined_;
  std::uint64_t followed_ = 0;
};

}  // namespace chispa::engine
