// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/render/crewrenderer.h"

#include <algorithm>

#include "core/render/laying.h"

namespace chispa {
namespace {

std::size_t tilesOf(const CompiledStave& stave) {
  return (static_cast<std::size_t>(stave.cells->count()) + Renderer::kTile - 1) / Renderer::kTile;
}

}  // namespace

void CrewRenderer::prepare(const CompiledShow& show, std::size_t hands) {
  renderers_.resize(std::max<std::size_t>(1, hands));
  renderers_.front().prepare(show);
  // Helpers only work at tiles.
  for (std::size_t i = 1; i < renderers_.size(); ++i)
    renderers_[i].prepare(std::min(show.maxCells, Renderer::kTile));
  std::size_t most = 0;
  for (const CompiledScore& score : show.scores) {
    std::size_t tiles = 0;
    for (const CompiledStave& stave : score.staves) tiles += tilesOf(stave);
    most = std::max(most, tiles);
  }
  tiles_.reserve(most);
  written_.reserve(most);
}

bool CrewRenderer::divide(std::span<const CompiledStave> wave, bool isFirst, Micros t) noexcept {
  tiles_.clear();
  for (const CompiledStave& stave : wave) {
    if (!Renderer::isLit(stave, t)) continue;
    if (!stave.isDistinct || !Renderer::canTile(stave.clips(), t)) return false;
    const auto count = static_cast<std::size_t>(stave.cells->count());
    for (std::size_t first = 0; first < count; first += Renderer::kTile)
      tiles_.push_back(
          {&stave, {first, std::min(Renderer::kTile, count - first)}, isFirst && stave.cells->isPlain});
  }
  return true;
}

void CrewRenderer::clearBeside(PixelFrame& frame) noexcept {
  written_.clear();
  for (const Tile& tile : tiles_)
    if (tile.isFirst) written_.emplace_back(tile.stave->cells->pixels[tile.range.first], tile.range.count);
  std::sort(written_.begin(), written_.end());
  std::size_t next = 0;
  for (const auto& [first, count] : written_) {
    clearPixels(next, first - next, frame);
    next = first + count;
  }
  clearPixels(next, frame.size() - next, frame);
}

void CrewRenderer::render(const CompiledScore& score, Micros t, PixelFrame& frame, Crew& crew) noexcept {
  const std::size_t hands = std::min(crew.hands(), renderers_.size());
  if (hands < 2) return own().render(score, t, frame);
  if (t < Micros(0) || t >= score.length || score.waves.empty()) return frame.clear();
  const Renderer::Instant now = Renderer::instantAt(score, t);
  for (std::size_t w = 0; w < score.waves.size(); ++w) {
    const std::size_t end = w + 1 < score.waves.size() ? score.waves[w + 1] : score.staves.size();
    const auto wave = std::span(score.staves).subspan(score.waves[w], end - score.waves[w]);
    if (!divide(wave, w == 0, t)) {
      if (w == 0) frame.clear();
      for (const CompiledStave& stave : wave) own().renderStave(score, stave, now, frame);
      continue;
    }
    if (w == 0) clearBeside(frame);
    auto job = [&](std::size_t number, std::size_t hand) {
      const Tile& tile = tiles_[number];
      if (tile.isFirst)
        renderers_[hand].renderFirstTile(score, *tile.stave, tile.range, now, frame);
      else
        renderers_[hand].renderTile(score, *tile.stave, tile.range, now, frame);
    };
    crew.run(tiles_.size(), job);
  }
}

}  // namespace chispa
