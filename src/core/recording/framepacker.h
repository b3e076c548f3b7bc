// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <vector>

#include "core/render/compiled.h"
#include "core/render/renderer.h"
#include "core/wire/pack.h"
#include "core/wire/powerbudget.h"

namespace chispa {

/// Values of all universes as the engine would send them at full master, budgets kept. Frames come in order.
/// One thread at a time; the show must live as long.
class FramePacker {
 public:
  FramePacker(const CompiledShow& compiled, int framesPerSecond, Dither dither = Dither::OverTime);

  /// Of the next frame of light.
  const std::vector<std::uint8_t>& pack(const PixelFrame& frame);
  /// Of `score` at `t`.
  const std::vector<std::uint8_t>& at(const CompiledScore& score, Micros t);

 private:
  const CompiledShow& compiled_;
  Renderer renderer_;
  PixelFrame frame_;
  BudgetLimiter keeper_;
  std::vector<double> amps_;
  std::vector<float> levels_;
  std::vector<std::uint8_t> values_;
  double framesPerSecond_;
  std::uint64_t packed_ = 0;
  Dither dither_;
};

}  // namespace chispa
