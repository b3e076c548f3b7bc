// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <atomic>

#include "core/render/compiled.h"
#include "core/render/frame.h"

namespace chispa {

/// The moment of a score that draws the most current.
struct BrightestMoment {
  Micros at{0};
  double amps = 0;
  PixelFrame frame;
};

/// Looks ten times a second through the whole of a score; empty if `cancelled`, or if the show has no such
/// score.
BrightestMoment brightestMoment(const CompiledShow& show, ScoreId score, const std::atomic<bool>& cancelled);

}  // namespace chispa
