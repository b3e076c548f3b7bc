// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <functional>
#include <future>
#include <map>
#include <string>

#include "engine/night/joininghand.h"

namespace chispa::engine {

/// Performs on a player without a window.
class PlayerHand final : public JoiningHand {
 public:
  /// The sound of a score, or null; called on threads of its own.
  using LoadSound = std::function<std::shared_ptr<const AudioClip>(const Score&)>;

  PlayerHand(Player& player, LoadSound load) : JoiningHand(player), load_(std::move(load)) {}

  void setShow(const Show& show) { show_ = show; }
  void switchLight(bool on) override { player().switchLight(on); }

 protected:
  const Score* scoreOf(ScoreId id) const override { return find(show_.scores, id); }
  std::optional<Clip> soundIfThere(const Score& score) override;
  Clip soundNow(const Score& score) override;
  void read(const Score& score) override;

 private:
  struct Loading {
    std::string file;
    std::shared_future<Clip> clip;
  };

  LoadSound load_;
  Show show_;
  std::map<ScoreId, Loading> sounds_;
};

}  // namespace chispa::engine
