// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/colour/rgb.h"
#include "engine/clock.h"
#include "engine/program.h"

namespace chispa::engine {

/// A test signal of the Bench: one pixel of one port's chain is lit and walks along it.
struct WalkSignal {
  ControllerId controller;
  int port = 0;
  /// Time on each pixel; 0 stands still on `first`.
  double secondsPerPixel = 0.2;
  int first = 0;
  Rgb colour{1, 1, 1};
  MonoTime since{0};
};

/// Place in the chain, from 0, that is lit at `now`; the walk starts over at the end. −1 for an empty chain.
int walkPlace(const WalkSignal& signal, const PortChain& chain, MonoTime now) noexcept;

/// Fills `frame` with the signal and nothing else.
void drawWalk(const WalkSignal& signal, const Program& program, MonoTime now, PixelFrame& frame) noexcept;

}  // namespace chispa::engine
