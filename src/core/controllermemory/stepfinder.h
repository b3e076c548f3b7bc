// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <vector>

#include "core/base/progress.h"
#include "core/controllermemory/content.h"
#include "core/wire/valuelight.h"

namespace chispa {

/// Values of one controller, instant by instant, `frame_ms` apart; steps begin at every `stride`th.
struct ValueFrames {
  int frame_ms = 25;
  std::size_t stride = 1;
  /// A whole number of strides.
  std::vector<std::vector<std::uint8_t>> frames;
};

/// How steps may be made.
struct StepRules {
  /// A pixel may differ by so much at any instant (ΔE₀₀); at 0 every instant at which a step may begin has
  /// its values.
  double tolerance = 1;
  bool mayFade = true;
};

/// As few steps as a greedy search finds that show `frames`: each begins with values of theirs and reaches as
/// far as no pixel is off by more than the tolerance, standing still or fading in a straight line. Between
/// two instants at which steps may begin light takes whichever of the two is nearer. Empty if cancelled.
std::vector<MemoryStep> findSteps(const ValueFrames& frames, const ValueLight& light, const StepRules& rules,
                                  const Progress& progress);

/// How far `shown` is off `full` (ΔE₀₀): the mean and the worst of all pixels.
struct LightError {
  double mean = 0;
  double most = 0;
};
LightError errorOf(const ValueLight& light, std::span<const std::uint8_t> shown,
                   std::span<const std::uint8_t> full);

}  // namespace chispa
