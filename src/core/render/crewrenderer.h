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
    /// Nothing lies below it, and its pixels stand in a row: they need not be dark before.
    bool isFirst;
  };
  /// The tiles of the staves of a wave; false if one of them cannot be divided.
  bool divide(std::span<const CompiledStave> wave, bool isFirst, Micros t) noexcept;
  /// Darkens all pixels but those of tiles that are first.
  void clearBeside(PixelFrame& frame) noexcept;

  std::vector<Renderer> renderers_{1};
  std::vector<Tile> tiles_;
  /// Pixels of tiles that are first: where they begin, and how many.
  std::vector<std::pair<std::size_t, std::size_t>> written_;
};

}  // namespace chispa
