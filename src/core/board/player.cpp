// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/board/player.h"

extern "C" {
#include "core/board/kit/player.h"
}

namespace chispa::board {

BoardPlayer::BoardPlayer(const std::vector<std::uint8_t>& data) : player_(std::make_unique<light_player>()) {
  player_->data = data.data();
  begin(0);
}

BoardPlayer::~BoardPlayer() = default;

void BoardPlayer::begin(int scene) {
  light_scene(player_.get(), static_cast<std::uint8_t>(scene));
}

std::span<const std::uint8_t> BoardPlayer::frame(std::uint32_t frame) {
  if (light_frame(player_.get(), frame) == 0) return {};
  return {player_->bytes, light_size(player_.get())};
}

}  // namespace chispa::board
