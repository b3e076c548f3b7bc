// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <optional>

#include "core/colour/rgb.h"
#include "engine/clock.h"
#include "engine/program.h"

namespace chispa::engine {

/// A test signal of the Bench: lights what hangs on a port, or on all ports of a controller, in a way that shows what is wrong.
struct TestSignal {
  enum class Kind {
    Walk,       ///< some pixels in a row step along
    Solid,      ///< all in one colour
    Cycle,      ///< all red, green, blue, white, by turns
    EveryNth,   ///< one of so many is lit, the first of them red
    Gradient,   ///< from dark at the data end to full at the far end
    Alternate,  ///< every other one, changing places
    Ends,       ///< the first green, the last red
    PortColours ///< each port in a colour of its own
  };
  static constexpr int kKinds = 8;

  Kind kind = Kind::Walk;
  ControllerId controller;
  /// Nothing for all ports.
  std::optional<int> port;
  /// Time of a step; 0 stands still.
  double seconds = 0.2;
  /// Place that a walk begins at, and how many pixels walk.
  int first = 0;
  int lit = 1;
  bool bounces = false;
  int nth = 10;
  Rgb colour{1, 1, 1};
  /// What is not driven plays on; else it is dark.
  bool restPlays = false;
  MonoTime since{0};
};

/// Place in a chain of `count` pixels, from 0, where a walk is at `now`; it starts over, or turns back, at the end. −1 for
/// an empty chain.
int walkPlace(const TestSignal& signal, int count, MonoTime now) noexcept;

/// What place `place` of `count` on port `port` shows.
Rgb signalColour(const TestSignal& signal, int port, int place, int count, MonoTime now) noexcept;

/// Lays the signal over `frame`, which is dark or plays.
void drawSignal(const TestSignal& signal, const Program& program, MonoTime now, PixelFrame& frame) noexcept;

}  // namespace chispa::engine
