// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <cstdint>

#include "core/board/terms.h"

namespace chispa::board {

/// Steps of the player (kit/player.c), in its order: each has the register of its result, then those of its
/// operands.
enum Code : std::uint8_t {
  End,
  AddBoth,
  SubtractBoth,
  MultiplyBoth,
  DivideBoth,
  ModuloBoth,
  Least,
  Most,
  Below,
  AtMost,
  Equals,
  Both,
  Either,
  ChooseOne,
  NoiseAt,
  ChanceOf,
  XorBoth,
  TimesWords,
  Out,
  Inverted,
  Minus,
  Size,
  SignOf,
  FloorOf,
  FractionOf,
  RootOf,
  PowerOf2,
  LogarithmOf,
  CosineOf,
  ClampTo,
  SmoothIt,
  WordOf,
  MixIt,
  ShiftIt,
  UnitOf,
  PaletteAt,
  DarkIf,
  ConstantOf,
  RampOf
};

/// The step that computes `op`; End for what is no step of its own.
Code codeOf(TermOp op);
/// How many plain steps one takes as long as, about, on a board of 8 bits.
int weightOf(Code code);

}  // namespace chispa::board
