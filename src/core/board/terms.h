// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <array>
#include <cstdint>
#include <map>
#include <memory>
#include <tuple>
#include <vector>

namespace chispa::board {

/// What a node of a Graph does with its operands. Numbers are those of the board, 16.16 fixed point; words
/// are 32 bits that are hashed.
enum class TermOp : std::uint8_t {
  Constant,      ///< `number`, a real number
  WordConstant,  ///< `word`
  Input,         ///< a value of its own for each cell: `word` is its place in Graph::inputs
  Ramp,          ///< `number` and `rate` a second
  Add,
  Subtract,
  Multiply,
  Divide,  ///< 0 where the divisor is
  Modulo,  ///< a − b·floor(a / b)
  Min,
  Max,
  Less,
  LessEqual,
  Equal,
  And,
  Or,
  Not,
  Negate,
  Abs,
  Sign,
  Floor,
  Fraction,
  Root,
  PowerOf2,
  Logarithm,  ///< to base 2
  Cosine,     ///< of turns
  Clamp,      ///< to 0–1
  Smooth,     ///< 0 below 0, 1 above 1, an S between
  Choose,
  Noise,   ///< noise() of effects, seed `word`
  Chance,  ///< chance() of two words, seed `word`
  Word,    ///< the whole number below, as a word
  MixWord,
  AddWord,
  XorWord,
  TimesWord,
  ShiftWord,  ///< to the left by `word` bits
  Unit,       ///< the upper bits of a word as a number 0–1
  LookUp,     ///< a place in the palette `word` of Graph::palettes: three values at once
  Channel     ///< value `word`, 0–2, of a LookUp
};

/// Colours that a program looks up: linear light at equal steps from 0 to 1.
struct BoardPalette {
  std::vector<std::array<float, 3>> entries;
  bool goesRound = false;

  bool operator==(const BoardPalette&) const = default;
};

class Graph;

/// A value that a board will compute: a node of a graph, which must live as long. Arithmetic on terms adds
/// nodes; what is known beforehand is worked out at once, and what is said twice is one node.
struct Term {
  Graph* graph = nullptr;
  int node = -1;
};

/// Light as a board computes it, for all cells of a zone at an instant: expressions that share what they have
/// in common. Not thread-safe.
class Graph {
 public:
  struct Node {
    TermOp op = TermOp::Constant;
    std::array<int, 3> from{-1, -1, -1};
    double number = 0;
    double rate = 0;
    std::uint32_t word = 0;
    /// The same for all cells.
    bool isUniform = true;

    auto key() const { return std::tuple(op, from, number, rate, word); }
  };

  Term constant(double value);
  Term wordConstant(std::uint32_t word);
  /// `base` and `rate` more each second.
  Term ramp(double base, double rate);
  /// One value a cell.
  Term input(std::vector<float> values);
  Term add(TermOp op, Term a);
  Term add(TermOp op, Term a, Term b);
  Term choose(Term condition, Term then, Term otherwise);
  Term noise(std::uint64_t seed, Term x, Term y);
  /// chance() of effects; `a` and `b` are words.
  Term chance(std::uint32_t seed, Term a, Term b);
  Term shiftWord(Term a, unsigned bits);
  /// Red, green and blue at `place`.
  std::array<Term, 3> lookUp(const BoardPalette& palette, Term place);

  const std::vector<Node>& nodes() const { return nodes_; }
  const Node& operator[](Term term) const { return nodes_[static_cast<std::size_t>(term.node)]; }
  const std::vector<std::vector<float>>& inputs() const { return inputs_; }
  const std::vector<BoardPalette>& palettes() const { return palettes_; }

 private:
  Term put(Node node);
  bool isConstant(Term term) const { return (*this)[term].op == TermOp::Constant; }
  bool isConstant(Term term, double value) const { return isConstant(term) && (*this)[term].number == value; }
  bool isWord(Term term) const { return (*this)[term].op == TermOp::WordConstant; }
  /// What is simpler than the operation, if anything.
  Term simpler(TermOp op, Term a, Term b);
  Term simplerSum(TermOp op, Term a, Term b);
  Term simplerProduct(TermOp op, Term a, Term b);
  Term simplerWord(TermOp op, Term a, Term b);

  std::vector<Node> nodes_;
  std::map<std::tuple<TermOp, std::array<int, 3>, double, double, std::uint32_t>, int> known_;
  std::vector<std::vector<float>> inputs_;
  std::vector<BoardPalette> palettes_;
};

/// The value of an operation on numbers that are known; 0 for one that is none on numbers.
double valueOf(TermOp op, const std::array<double, 3>& operands);

Term operator+(Term a, Term b);
Term operator-(Term a, Term b);
Term operator*(Term a, Term b);
Term operator/(Term a, Term b);
Term operator<(Term a, Term b);
Term operator<=(Term a, Term b);
Term operator-(Term a);
Term operator+(Term a, double b);
Term operator-(Term a, double b);
Term operator*(Term a, double b);
Term operator/(Term a, double b);
Term operator<(Term a, double b);
Term operator<(double a, Term b);
Term operator<=(double a, Term b);
Term operator+(double a, Term b);
Term operator-(double a, Term b);
Term operator*(double a, Term b);
Term operator/(double a, Term b);

Term floorOf(Term a);
Term fractionOf(Term a);
Term absOf(Term a);
Term clamped(Term a);
Term smoothed(Term a);
Term rootOf(Term a);
Term cosineOf(Term turns);
Term sineOf(Term turns);
Term powerOf2(Term a);
/// e to the power of `a`.
Term exponentialOf(Term a);
/// `base` ≥ 0 to the power of `exponent`.
Term powerOf(Term base, Term exponent);
Term lower(Term a, Term b);
Term higher(Term a, Term b);
Term moduloOf(Term a, double b);
/// `condition` ≠ 0 ? `then` : `otherwise`.
Term choose(Term condition, Term then, Term otherwise);
Term choose(Term condition, Term then, double otherwise);
/// 0 below `from`, 1 from `from` + `width` on, an even S between; `width` is the same for all cells.
Term eased(Term from, Term width, Term x);
/// Along straight lines from point to point, in order of the first numbers; level outside.
Term alongLines(Term x, const std::vector<std::pair<double, double>>& points);

}  // namespace chispa::board
