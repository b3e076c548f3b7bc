// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <vector>

#include "core/base/crew.h"
#include "core/render/renderer.h"

namespace chispa {

/// Computes light with several hands: bit for bit what a Renderer computes alone. One frame at a time.
class CrewRenderer {
 public:
  /// Makes room for the zones of `show`, for `hands` hands; render() allocates nothing then.
  void prepare(const CompiledShow& show, std::size_t hands);

  /// As Renderer::render().
  void render(const CompiledScore& score, Micros t, PixelFrame& frame, Crew& crew) noexcept;

  /// The caller's hand, for all that is not shared.
  Renderer& own() { return renderers_.front(); }

 private:
  /// Some cells of a stave.
  struct Tile {
    const CompiledStave* stave;
    CellRange range;
  };
  /// The tiles of the staves of a wave; false if one of them cannot be divided.
  bool divide(std::span<const CompiledStave> wave, Micros t) noexcept;

  std::vector<Renderer> renderers_{1};
  std::vector<Tile> tiles_;
};

}  // namespace chispa
