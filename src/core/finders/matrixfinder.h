// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/finders/elimination.h"
#include "core/shape/shape.h"

namespace chispa {

/// How a matrix is laid: its size, the corner where data begins, which way lines run, and whether they turn
/// back.
struct MatrixWiring {
  int columns = 1;
  int rows = 1;
  Corner start = Corner::BottomLeft;
  GridRuns runs = GridRuns::AlongRows;
  bool isSerpentine = false;

  bool operator==(const MatrixWiring&) const = default;
  /// Pixels of a line.
  int line() const { return runs == GridRuns::AlongRows ? columns : rows; }
};

/// What lights for a question to a matrix of unknown wiring.
struct MatrixPicture {
  enum class Kind {
    Head,  ///< the first three pixels, each dimmer than the one before: answer 2 × corner + (1 if they run up
           ///< or down)
    Line,  ///< the first `pixels`: answer 2 × the lines that are begun (6 for more) + (1 if the last of them
           ///< is full)
    Return,  ///< the first of the second line: answer 1 if it lies where the first line ended, 0 where it
             ///< began
  };
  Kind kind = Kind::Head;
  int pixels = 0;
};

/// Finds the wiring of a matrix of `pixels` in at most five pictures. `pictures` gets what each question
/// lights.
Elimination<MatrixWiring> matrixFinder(int pixels, std::vector<MatrixPicture>& pictures);

}  // namespace chispa
