// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/base/frame.h"
#include "core/colour/evenness.h"
#include "core/effect/effect.h"
#include "core/render/blend.h"

namespace chispa {

// From cells to pixels; real-time safe.

/// All of a zone's cells.
inline CellRange allOf(const ZoneCells& cells) {
  return {0, static_cast<std::size_t>(cells.count())};
}

/// Lays the light of `range` of a zone's cells on their pixels.
void layOnPixels(const LightBuffer& light, const ZoneCells& cells, const CellRange& range,
                 PixelFrame& frame) noexcept;

/// The same for a plain zone whose pixels are to hold nothing else: what stands there is written over.
void putOnPixels(const LightBuffer& light, const ZoneCells& cells, const CellRange& range,
                 PixelFrame& frame) noexcept;
/// Darkens `count` pixels from `first` on.
void clearPixels(std::size_t first, std::size_t count, PixelFrame& frame) noexcept;

/// Blends the light of `range` of a zone's cells with what is on their pixels already.
void blendOnPixels(const LightBuffer& light, const ZoneCells& cells, const CellRange& range, Blend blend,
                   float strength, PixelFrame& frame) noexcept;

/// All channels of `light` times `share`; of the first `count` cells.
void scale(LightBuffer& light, std::size_t count, float share) noexcept;

/// `to` becomes what lies `share` 0–1 of the way from `from`, which has as many pixels, to itself.
void mixFrames(const PixelFrame& from, float share, Evenness evenness, PixelFrame& to) noexcept;
/// The same for the first `count` cells of two layers.
void mixLight(const LightBuffer& from, float share, Evenness evenness, std::size_t count,
              LightBuffer& to) noexcept;

}  // namespace chispa
