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
  void prepare(ScoreId score) override;
  void lightLook(LookId look) override { light(look, 1); }
  void endLook(LookId look) override { light(look, 0); }
  void switchLight(bool on) override { player_.switchLight(on); }

 private:
  struct Loading {
    std::string file;
    std::shared_future<std::shared_ptr<const AudioClip>> clip;
  };
  void light(LookId look, float value);

  Player& player_;
  LoadSound load_;
  Show show_;
  std::map<ScoreId, Loading> sounds_;
  /// A score was asked for, and not its end.
  bool isPlaying_ = false;
};

}  // namespace chispa::engine
