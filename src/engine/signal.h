// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <optional>
#include <string>
#include <vector>

#include "core/colour/rgb.h"
#include "engine/clock.h"
#include "engine/program.h"

namespace chispa::engine {

/// Places of a port's chain, from 0.
struct PlaceRange {
  int first = 0;
  int count = 0;
};

/// Channels of a controller taken as they are, whatever hangs there.
struct ChannelRange {
  /// By the protocol's own number, and from 1.
  int universe = 1;
  int channel = 1;
  int pixels = 1;
  /// The colour of each channel of a pixel: letters R G B W.
  std::string order = "RGB";
};

/// What a test signal goes to. The pixels, if any are named; else the channels, if they are; else what hangs
/// on a port, or on part of it, or on all ports of the controller.
struct SignalTarget {
  ControllerId controller;
  /// Nothing for all ports.
  std::optional<int> port;
  /// Nothing for the whole chain.
  std::optional<PlaceRange> places;
  std::optional<ChannelRange> channels;
  /// Pixels of the show as one chain.
  std::vector<std::int32_t> pixels;
};

/// A test signal of the Bench: lights its target in a way that shows what is wrong.
struct TestSignal {
  enum class Kind {
    Walk,         ///< some pixels in a row step along
    Solid,        ///< all in one colour
    Cycle,        ///< all red, green, blue, white, by turns
    EveryNth,     ///< one of so many is lit, the first of them red
    Gradient,     ///< from dark at the data end to full at the far end
    Alternate,    ///< every other one, changing places
    Ends,         ///< the first green, the last red
    PortColours,  ///< each port, or string, in a colour of its own
    RowSweep,     ///< matrices: row after row, from the bottom
    ColumnSweep,  ///< matrices: column after column, from the left
    Diagonal,     ///< matrices: a diagonal that moves to the right
    LetterF,      ///< matrices: a letter that no mirror and no turn leaves as it is
    Faders,       ///< the `levels`, channel by channel
    Steps,        ///< eight stretches whose lightness (CIE 1976 L*) rises evenly
    Flash,        ///< all together, one step of every `nth`
    Code          ///< each pixel blinks its own word, as core/vision/blinkcode.h says
  };
  /// Those a maker chooses from; the others are for faders, finders and the camera.
  static constexpr int kKinds = 12;
  static constexpr std::uint64_t kDarkWord = ~std::uint64_t{0};

  Kind kind = Kind::Walk;
  SignalTarget target;
  /// Time of a step; 0 stands still.
  double seconds = 0.2;
  /// Place that a walk, or a sweep, begins at, and how many pixels walk.
  int first = 0;
  int lit = 1;
  bool bounces = false;
  bool loops = true;
  int nth = 10;
  Rgb colour{1, 1, 1};
  /// Values of channels from the target's first on.
  std::vector<std::uint8_t> levels;
  /// A word of `codeBits` places for each pixel of the target, in its order; kDarkWord for those that stay
  /// dark.
  std::vector<std::uint64_t> codes;
  int codeBits = 0;
  /// What is not driven plays on; else it is dark.
  bool restPlays = false;
  /// Steps count from the start of what is heard, not from `since`.
  bool followsSound = false;
  MonoTime since{0};
};

/// How many steps have passed since the signal began.
std::int64_t stepsOf(const TestSignal& signal, MonoTime now) noexcept;

/// Place in a chain of `count` pixels, from 0, where a walk is at `now`; it starts over, turns back, or stays
/// at the end. −1 for an empty chain.
int walkPlace(const TestSignal& signal, int count, MonoTime now) noexcept;

/// A pixel as a signal sees it: its port, its place of `count` in the chain, and where it is in its matrix.
struct SignalPixel {
  int port = 0;
  int place = 0;
  int count = 0;
  MatrixPlace matrix = {};
};

/// What a pixel shows.
Rgb signalColour(const TestSignal& signal, const SignalPixel& pixel, MonoTime now) noexcept;

/// Lays the signal over `frame`, which is dark or plays. What goes to channels is drawn by drawChannels().
void drawSignal(const TestSignal& signal, const Program& program, MonoTime now, PixelFrame& frame) noexcept;

/// Lays a signal for channels over the values of a frame, scaled by `level` 0–1; any other leaves them as
/// they are.
void drawChannels(const TestSignal& signal, const Program& program, float level, MonoTime now,
                  std::span<std::uint8_t> values) noexcept;

}  // namespace chispa::engine
