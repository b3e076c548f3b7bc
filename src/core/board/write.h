// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <string>
#include <vector>

#include "core/base/progress.h"
#include "core/base/result.h"
#include "core/board/scenes.h"
#include "core/board/strip.h"

namespace chispa::board {

/// How light is kept on a board; what is less than full makes it smaller.
struct BoardOptions {
  int framesPerSecond = 40;
  /// Colours of what is kept as frames, for each scene; 0 for all.
  int maxColours = 0;
  /// Neighbours that share a value.
  int pixelsPerValue = 1;
  /// How long a look is that has to be kept as frames: then it comes again.
  double lookSeconds = 20;

  bool operator==(const BoardOptions&) const = default;
};

/// One scene that is to be written, and for how long it plays before the next; 0: until the button.
struct BoardOrder {
  SceneId scene;
  double stays_s = 0;

  bool operator==(const BoardOrder&) const = default;
};

struct BoardPlan {
  /// What hangs on the board, in the order of its data line.
  std::vector<BoardRun> runs;
  std::vector<BoardOrder> scenes;
  BoardOptions options;

  bool operator==(const BoardPlan&) const = default;
};

/// Clips of one zone for a time, and how they are kept.
struct BoardPart {
  std::string zone;
  /// The effects, the lowest first: "Comets", "Hold + Glints".
  std::string effects;
  double from_s = 0;
  /// Below 0: for ever.
  double to_s = -1;
  bool isProgram = false;
  std::size_t bytes = 0;
  /// Why it is frames.
  std::string reason;
  /// What its bytes differ by from the full light's, of 255, on the mean and at most.
  double meanError = 0;
  double maxError = 0;
  /// The share of values that differ by more than kMaxError.
  double specks = 0;
};

struct BoardSceneReport {
  std::string name;
  /// Seconds; 0 if it lasts.
  double seconds = 0;
  std::size_t bytes = 0;
  /// Every part is a program.
  bool isProgram = true;
  /// Mean ΔE₀₀ against the full light, at the full rate.
  double loss = 0;
  std::vector<BoardPart> parts;
};

/// Light ready to be written to a board.
struct BoardLight {
  BoardOptions options;
  std::vector<std::uint8_t> data;
  int pixels = 0;
  /// Bytes of all values, and of all pixels.
  int frameBytes = 0;
  int sentBytes = 0;
  /// What the player needs room for.
  int registers = 1;
  int maxParts = 1;
  /// The most current at once, in amperes, at `volts`.
  double most_a = 0;
  double volts = 5;
  /// Steps of programs for the costliest frame.
  long stepsOfFrame = 0;
  std::vector<BoardSceneReport> scenes;
};

/// The fixtures that the scenes light, in the order of the show: what hangs on a board if nothing else is
/// said.
std::vector<BoardRun> litRuns(const Show& show, const std::vector<BoardOrder>& scenes);

/// Renders the scenes of `plan`, keeps each stretch of clips as a program or as frames, whichever is smaller
/// (a program only if what it shows was measured to be right), and checks all of it with the board's own
/// player. Fails if something cannot be written at all; a cancelled one fails without a text.
Result<BoardLight> writeBoard(const Show& show, const CompiledShow& compiled, const BoardPlan& plan,
                              const Progress& progress);

/// The most that a program may differ from the full light, of 255: in the mean, and in all but one of ten
/// thousand values. At a jump it may come a millisecond early or late; where two colours meet, a lamp on the
/// very border may take the other.
inline constexpr double kMaxMeanError = 1;
inline constexpr double kMaxError = 6;
inline constexpr double kMaxSpecks = 1e-4;

}  // namespace chispa::board
