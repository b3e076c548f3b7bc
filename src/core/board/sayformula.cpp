// SPDX-License-Identifier: GPL-3.0-or-later
#include <cmath>
#include <numbers>

#include "core/board/say.h"
#include "core/formula/program.h"

namespace chispa::board {
namespace {

/// A formula's steps as terms, one for each.
class FormulaTerms {
 public:
  FormulaTerms(ClipTerms& clip, const formula::Program& program) : clip_(clip) {
    for (const formula::Step& step : program.steps) terms_.push_back(termOf(step));
  }
  Term of(std::size_t step) const { return terms_[step]; }

 private:
  enum { Across, Formula, A, B, C, D };

  Term cell(formula::CellInput input) {
    using enum formula::CellInput;
    const ZoneCells& cells = clip_.cells();
    switch (input) {
      case X:
        return clip_.x();
      case Y:
        return clip_.y();
      case formula::CellInput::Across:
        return clip_.place();
      case Index:
        return clip_.cellwise([](std::size_t i) { return static_cast<double>(i); });
      case Column:
        return clip_.cellwise([&](std::size_t i) { return static_cast<double>(cells.column[i]); });
      case Row:
        return clip_.cellwise([&](std::size_t i) { return static_cast<double>(cells.row[i]); });
      case Angle:
        return clip_.along(Axis::Around);
      case Radius:
        return clip_.along(Axis::Outward);
    }
    return clip_.number(0);
  }

  Term moment(formula::MomentInput input) {
    using enum formula::MomentInput;
    const ZoneCells& cells = clip_.cells();
    switch (input) {
      case Time:
        return clip_.seconds();
      case Length:
        return clip_.number(clip_.length_s());
      case Beat:
        return clip_.beats();
      case Bar:
        return clip_.bars();
      case BeatInBar:
        return clip_.beatInBar();
      case Count:
        return clip_.number(cells.count());
      case Columns:
        return clip_.number(cells.columns);
      case Rows:
        return clip_.number(cells.rows);
      case formula::MomentInput::A:
      case formula::MomentInput::B:
      case formula::MomentInput::C:
      case formula::MomentInput::D:
        return clip_.param(
            static_cast<std::size_t>(FormulaTerms::A) +
            (static_cast<std::size_t>(input) - static_cast<std::size_t>(formula::MomentInput::A)));
      case Level:
      case Low:
      case Middle:
      case High:
        clip_.refuse("it follows the music");
        return clip_.number(0);
    }
    return clip_.number(0);
  }

  Term power(Term base, Term exponent) {
    const Graph::Node& known = clip_.graph()[exponent];
    constexpr double kMaxProducts = 8;
    if (known.op == TermOp::Constant && known.number == std::floor(known.number) && known.number >= 0 &&
        known.number <= kMaxProducts) {
      const auto times = static_cast<int>(known.number);
      Term product = clip_.number(1);
      for (int i = 0; i < times; ++i) product = product * base;
      return product;
    }
    return choose(clip_.number(0) < base, powerOf(base, exponent), 0);
  }

  Term one(TermOp op, Term a) { return clip_.graph().add(op, a); }
  Term two(TermOp op, Term a, Term b) { return clip_.graph().add(op, a, b); }

  // Long, as it is one switch over all operations of the formula language.
  Term termOf(const formula::Step& step) {
    const auto from = [&](std::size_t i) { return terms_[step.from[i]]; };
    constexpr double kTurns = 0.5 * std::numbers::inv_pi;
    using enum formula::Op;
    switch (step.op) {
      case Constant:
        return clip_.number(static_cast<double>(step.number));
      case Cell:
        return cell(static_cast<formula::CellInput>(step.number));
      case Moment:
        return moment(static_cast<formula::MomentInput>(step.number));
      case Add:
        return from(0) + from(1);
      case Subtract:
        return from(0) - from(1);
      case Multiply:
        return from(0) * from(1);
      case Divide:
        return from(0) / from(1);
      case Modulo:
        return two(TermOp::Modulo, from(0), from(1));
      case Power:
        return power(from(0), from(1));
      case Negate:
        return -from(0);
      case Not:
        return one(TermOp::Not, from(0));
      case Less:
        return from(0) < from(1);
      case LessEqual:
        return from(0) <= from(1);
      case Equal:
        return two(TermOp::Equal, from(0), from(1));
      case And:
        return two(TermOp::And, from(0), from(1));
      case Or:
        return two(TermOp::Or, from(0), from(1));
      case Choose:
        return choose(from(0), from(1), from(2));
      case Sin:
        return sineOf(from(0) * kTurns);
      case Cos:
        return cosineOf(from(0) * kTurns);
      case Sway:
        return 0.5 + 0.5 * sineOf(from(0));
      case Triangle:
        return 1.0 - absOf(2.0 * fractionOf(from(0)) - 1.0);
      case Saw:
        return ClipTerms::partOf(from(0));
      case Pulse:
        return ClipTerms::partOf(from(0)) < from(1);
      case Abs:
        return absOf(from(0));
      case Floor:
        return ClipTerms::stepOf(from(0));
      case Sqrt:
        return rootOf(from(0));
      case Exp:
        return exponentialOf(from(0));
      case Log:
        return choose(clip_.number(0) < from(0), one(TermOp::Logarithm, from(0)) * std::numbers::ln2, 0);
      case Sign:
        return one(TermOp::Sign, from(0));
      case Min:
        return lower(from(0), from(1));
      case Max:
        return higher(from(0), from(1));
      case Clamp:
        return lower(higher(from(0), from(1)), from(2));
      case Mix:
        return from(0) + (from(1) - from(0)) * from(2);
      case Smooth:
        return eased(from(0), from(1) - from(0), from(2));
      case Noise:
        return clip_.graph().noise(clip_.seed(), from(0), from(1));
      case Chance:
        return clip_.graph().chance(clip_.seed(), one(TermOp::Word, from(0)), one(TermOp::Word, from(1)));
      case Band:
        clip_.refuse("it follows the music");
        return clip_.number(0);
    }
    return clip_.number(0);
  }

  ClipTerms& clip_;
  std::vector<Term> terms_;
};

CellLight formulaLight(ClipTerms& clip) {
  constexpr std::size_t kFormula = 1;
  formula::Mistake mistake;
  const auto program = formula::compile(clip.clip().params.text(kFormula), mistake);
  CellLight light{clip.number(0), clip.number(0)};
  if (!program) {
    clip.refuse("its formula has a mistake");
    return light;
  }
  const FormulaTerms terms(clip, *program);
  light.place = clamped(terms.of(program->shade));
  light.light = clamped(terms.of(program->light));
  if (program->colour) {
    const auto& colour = *program->colour;
    light.colour = {clamped(terms.of(colour[0])), clamped(terms.of(colour[1])), clamped(terms.of(colour[2]))};
  }
  return light;
}

}  // namespace

const std::map<std::string, Saying>& formulaSayings() {
  static const std::map<std::string, Saying> all = {{"formula", formulaLight}};
  return all;
}

}  // namespace chispa::board
