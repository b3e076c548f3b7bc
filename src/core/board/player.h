// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <cstdint>
#include <memory>
#include <span>
#include <vector>

struct light_player;

namespace chispa::board {

/// Plays a board's data here, with the very player that is written for boards (kit/player.c): what it shows
/// is what a board will, byte for byte. One thread at a time.
class BoardPlayer {
 public:
  /// `data` must live as long, and be data that writeBoard() has made.
  explicit BoardPlayer(const std::vector<std::uint8_t>& data);
  ~BoardPlayer();

  void begin(int scene);
  /// Bytes of the strip at frame `frame` of the scene; frames may be left out but never go back. Empty once
  /// the scene is over.
  std::span<const std::uint8_t> frame(std::uint32_t frame);

  /// Bytes of RAM that a part which is lit takes on a board, and what does not depend on the light, stack
  /// included: of an 8-bit board with addresses of 16 bits, and of a 32-bit one.
  static constexpr int kPartRam8 = 50, kFixedRam8 = 25 + 220;
  static constexpr int kPartRam32 = 76, kFixedRam32 = 36 + 512;

 private:
  std::unique_ptr<light_player> player_;
};

}  // namespace chispa::board
