// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <atomic>

#include "core/base/frame.h"
#include "core/render/compiled.h"

namespace chispa {

/// The moment of a score that draws the most current.
struct PeakCurrentMoment {
  Micros at{0};
  double amps = 0;
  PixelFrame frame;
};

/// Looks ten times a second through the whole of a score; empty if `cancelled`, or if the show has no such
/// score.
PeakCurrentMoment peakCurrentMoment(const CompiledShow& show, ScoreId score,
                                    const std::atomic<bool>& cancelled);

}  // namespace chispa
