// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <string>
#include <vector>

#include "core/base/id.h"
#include "core/base/time.h"

namespace chispa {

/// What plays: a score, a look for a time, nothing for a time, or another set list.
enum class PieceKind {
  Score,
  Look,
  Silence,
  SetList,
};

/// What follows a piece of a set list.
enum class AfterPiece {
  Next,
  Random,  ///< any other of its list
  Stay,    ///< it plays on until someone goes on by hand: a score in a loop
  Stop,    ///< its list ends
};

/// A line of a set list. Which members count depends on the kind.
struct SetListItem {
  PieceKind kind = PieceKind::Score;
  ScoreId score = {};
  LookId look = {};
  SetListId list = {};
  /// Of a look and of silence; a score has its own.
  Micros length{60'000'000};
  /// How often it plays before what follows.
  int repeats = 1;
  /// How long its light fades into what comes next. It takes no time of its own: the next piece begins.
  Micros fade{0};
  AfterPiece then = AfterPiece::Next;

  bool operator==(const SetListItem&) const = default;
};

/// An order of scores and looks, with repeats and what follows what.
struct SetList {
  SetListId id;
  std::string name;
  std::vector<SetListItem> items;
  /// How often the whole list plays; 0 for ever.
  int rounds = 1;
  /// Each round has an order of its own.
  bool isShuffled = false;

  bool operator==(const SetList&) const = default;
};

}  // namespace chispa
