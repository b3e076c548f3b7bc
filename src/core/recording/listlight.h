// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <vector>

#include "core/render/compiledlive.h"
#include "core/render/livestate.h"
#include "core/render/renderer.h"
#include "core/setlist/setlistwalk.h"

namespace chispa {

/// The light of a set list, gone through once, at instants that never fall: scores, looks with their fades,
/// silence, and the passing from piece to piece, as they are when it is played. One thread at a time.
class ListLight {
 public:
  /// All must live as long.
  ListLight(const Show& show, const CompiledShow& compiled, SetListId list, std::uint64_t seed);

  /// False once the list is over; then the frame is dark but for what still fades out.
  bool render(Micros t, PixelFrame& frame);
  /// What plays at the last instant.
  const std::optional<Piece>& piece() const { return walk_.now(); }

 private:
  void begin(Micros at);
  void end(Micros at);
  const CompiledScore* score() const;

  const CompiledShow& compiled_;
  SetListWalk walk_;
  Micros begun_{0};
  Renderer renderer_;
  LiveState state_;
  std::vector<DeskValues> noDesks_;
  /// What faded away when the present piece began.
  PixelFrame fading_;
  Micros fade_{0};
};

}  // namespace chispa
