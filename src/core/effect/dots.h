// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <span>

#include "core/effect/effect.h"

namespace chispa {

/// How far a dot reaches on a face: 1 over its square, and how much dimmer it is drawn for being larger than
/// asked.
struct DotReach {
  float perSquare = 1;
  float light = 1;
};

/// A zone's face as light sees it that has places on it: a matrix, or a strand that lies about its middle, in
/// two directions, a line along itself alone. Places as ZoneCells::x and y.
class FacePlaces {
 public:
  explicit FacePlaces(const ZoneCells& cells) noexcept;

  float x(std::size_t i) const { return x_[i] * scale_ + offset_; }
  float y(std::size_t i) const { return y_[i] * upward_; }
  bool isLine() const { return upward_ == 0; }
  /// From the middle to the face's edges; a line is 0 high.
  float halfWidth() const { return halfWidth_; }
  float halfHeight() const { return halfHeight_; }
  /// From a cell to the next, about.
  float cell() const { return cell_; }
  /// For a dot that is to reach `asked` from its middle: none is drawn smaller than a cell.
  DotReach reachOf(float asked) const noexcept;

 private:
  std::span<const float> x_, y_;
  float scale_ = 1, offset_ = 0, upward_ = 1;
  float halfWidth_ = 1, halfHeight_ = 1, cell_ = 0.1f;
};

/// A soft round light on a face: full in its middle, gone `reach` from it.
struct LightDot {
  float x = 0;
  float y = 0;
  float reach = 0;
  /// In linear light, times `light` 0–1.
  Rgb colour;
  float light = 0;
};

/// Fills the range with the sum of `dots`: where two meet it is brighter.
void drawDots(const EffectInput& in, const FacePlaces& face, std::span<const LightDot> dots,
              LightBuffer& out) noexcept;

}  // namespace chispa
