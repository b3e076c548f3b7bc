// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <array>
#include <cstdint>
#include <optional>
#include <string>
#include <vector>

namespace chispa::formula {

/// What a formula can ask about the cell (docs/formula.md says what each is).
enum class CellInput : std::uint8_t { X, Y, Across, Index, Column, Row, Angle, Radius };
inline constexpr std::size_t kCellInputs = 8;

/// What it can ask about the instant; the same for all cells.
enum class MomentInput : std::uint8_t {
  Time,
  Length,
  Beat,
  Bar,
  BeatInBar,
  Level,
  Low,
  Middle,
  High,
  Count,
  Columns,
  Rows,
  A,
  B,
  C,
  D
};
inline constexpr std::size_t kMomentInputs = 16;

enum class Op : std::uint8_t {
  Constant,
  Cell,
  Moment,
  Add,
  Subtract,
  Multiply,
  Divide,
  Modulo,
  Power,
  Negate,
  Not,
  Less,
  LessEqual,
  Equal,
  And,
  Or,
  Choose,
  Sin,
  Cos,
  Sway,
  Triangle,
  Saw,
  Pulse,
  Abs,
  Floor,
  Sqrt,
  Exp,
  Log,
  Sign,
  Min,
  Max,
  Clamp,
  Mix,
  Smooth,
  Noise,
  Chance,
  Band
};

/// One step: computes register i of a program from earlier ones.
struct Step {
  Op op = Op::Constant;
  std::array<std::uint16_t, 3> from{};
  /// The number of a constant, or which input.
  float number = 0;
  /// It does not depend on the cell.
  bool isUniform = true;
};

/// Why a formula is none: at which letter, counted from 0, and what is wrong there.
struct Mistake {
  std::size_t at = 0;
  std::string what;
};

/// A formula ready to run: each step has a register of its own. Light and shade are always there; colours
/// only if the formula gives them.
struct Program {
  static constexpr std::size_t kMaxSteps = 240;

  std::vector<Step> steps;
  std::uint16_t light = 0;
  std::uint16_t shade = 0;
  std::optional<std::array<std::uint16_t, 3>> colour;
};

/// Compiles a formula (docs/formula.md): lines of `name = expression`, or one expression alone. On failure
/// `mistake` is set.
std::optional<Program> compile(const std::string& text, Mistake& mistake);

/// Words that a formula can use, with what they are: for the editor's list and the guide.
struct Word {
  std::string name;
  std::string meaning;
};
const std::vector<Word>& inputWords();
const std::vector<Word>& functionWords();

}  // namespace chispa::formula
