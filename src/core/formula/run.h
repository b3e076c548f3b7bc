// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <array>
#include <cstdint>
#include <span>

#include "core/formula/program.h"

namespace chispa::formula {

/// What a program reads: each cell input as a row of numbers (one a cell), the moment's, the bands, and the
/// seed of chance.
struct Inputs {
  std::array<std::span<const float>, kCellInputs> cells;
  std::array<float, kMomentInputs> moment{};
  std::span<const float> bands;
  std::uint64_t seed = 0;
};

/// Cells that are computed at a time.
inline constexpr std::size_t kBlock = 64;

/// Runs programs over blocks of cells: each step is one plain loop, which the compiler vectorises; steps that
/// do not depend on the cell run once. Real-time safe; lives on the stack of the frame that it computes.
class Machine {
 public:
  Machine(const Program& program, const Inputs& inputs) noexcept;

  /// Computes `count` ≤ kBlock cells from `first` on.
  void run(std::size_t first, std::size_t count) noexcept;
  /// Results of the last run, finite and within 0–1.
  float light(std::size_t i) const noexcept { return clean(registers_[program_.light][i]); }
  float shade(std::size_t i) const noexcept { return clean(registers_[program_.shade][i]); }
  float colour(std::size_t channel, std::size_t i) const noexcept {
    return clean(registers_[(*program_.colour)[channel]][i]);
  }

 private:
  static float clean(float v) noexcept { return v >= 0 ? (v <= 1 ? v : 1) : 0; }
  void step(std::size_t index, std::size_t first, std::size_t count) noexcept;

  const Program& program_;
  const Inputs& inputs_;
  std::array<std::array<float, kBlock>, Program::kMaxSteps> registers_;
};

}  // namespace chispa::formula
