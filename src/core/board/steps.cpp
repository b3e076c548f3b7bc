// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/board/steps.h"

namespace chispa::board {

// Long, as it is a table of all operations.
Code codeOf(TermOp op) {
  switch (op) {
    case TermOp::Add:
    case TermOp::AddWord:
      return AddBoth;
    case TermOp::Subtract:
      return SubtractBoth;
    case TermOp::Multiply:
      return MultiplyBoth;
    case TermOp::Divide:
      return DivideBoth;
    case TermOp::Modulo:
      return ModuloBoth;
    case TermOp::Min:
      return Least;
    case TermOp::Max:
      return Most;
    case TermOp::Less:
      return Below;
    case TermOp::LessEqual:
      return AtMost;
    case TermOp::Equal:
      return Equals;
    case TermOp::And:
      return Both;
    case TermOp::Or:
      return Either;
    case TermOp::Not:
      return Inverted;
    case TermOp::Negate:
      return Minus;
    case TermOp::Abs:
      return Size;
    case TermOp::Sign:
      return SignOf;
    case TermOp::Floor:
      return FloorOf;
    case TermOp::Fraction:
      return FractionOf;
    case TermOp::Root:
      return RootOf;
    case TermOp::PowerOf2:
      return PowerOf2;
    case TermOp::Logarithm:
      return LogarithmOf;
    case TermOp::Cosine:
      return CosineOf;
    case TermOp::Clamp:
      return ClampTo;
    case TermOp::Smooth:
      return SmoothIt;
    case TermOp::Choose:
      return ChooseOne;
    case TermOp::Noise:
      return NoiseAt;
    case TermOp::Chance:
      return ChanceOf;
    case TermOp::Word:
      return WordOf;
    case TermOp::MixWord:
      return MixIt;
    case TermOp::XorWord:
      return XorBoth;
    case TermOp::TimesWord:
      return TimesWords;
    case TermOp::ShiftWord:
      return ShiftIt;
    case TermOp::Unit:
      return UnitOf;
    case TermOp::Constant:
    case TermOp::WordConstant:
    case TermOp::Input:
    case TermOp::Ramp:
    case TermOp::LookUp:
    case TermOp::Channel:
      break;
  }
  return End;
}

int weightOf(Code code) {
  switch (code) {
    case NoiseAt:
      return 22;
    case ChanceOf:
      return 50;
    case DivideBoth:
      return 12;
    case LogarithmOf:
    case RootOf:
      return 6;
    case Out:
    case PaletteAt:
    case PowerOf2:
    case SmoothIt:
    case CosineOf:
      return 4;
    case MultiplyBoth:
    case MixIt:
      return 2;
    default:
      return 1;
  }
}

}  // namespace chispa::board
