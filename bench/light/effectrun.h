// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <memory>
#include <vector>

#include "core/effect/effect.h"
#include "core/zone/cells.h"

namespace chispa::bench {

/// How long an effect is looked at.
inline constexpr double kEffectLength_s = 8;

/// What effects are measured and looked at on.
struct LightPiece {
  const char* name;
  ZoneCells cells;
};

/// A line of 300, a ring of 24, a matrix of 48 × 16, and all of the carousel.
std::vector<LightPiece> lightPieces();

/// An effect as it is when it is taken from the shelf, on two beats a second that are loud and fall.
class EffectRun {
 public:
  EffectRun(const Effect& effect, const ZoneCells& cells, const ParamValues& values = {});

  /// Valid until the next call.
  const LightBuffer& at(double t_s);

 private:
  const Effect& effect_;
  const ZoneCells& cells_;
  ParamPack params_;
  std::shared_ptr<const Prepared> prepared_;
  std::vector<float> place_;
  LightBuffer light_;
};

}  // namespace chispa::bench
