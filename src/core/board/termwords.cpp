// SPDX-License-Identifier: GPL-3.0-or-later
// Terms written as one writes numbers.
#include <cmath>
#include <numbers>

#include "core/board/terms.h"

namespace chispa::board {

Term operator+(Term a, Term b) {
  return a.graph->add(TermOp::Add, a, b);
}

Term operator+(Term a, double b) {
  return a + a.graph->constant(b);
}

Term operator+(double a, Term b) {
  return b + a;
}

Term operator-(Term a, Term b) {
  return a.graph->add(TermOp::Subtract, a, b);
}

Term operator-(Term a) {
  return a.graph->add(TermOp::Negate, a);
}

Term operator-(Term a, double b) {
  return a - a.graph->constant(b);
}

Term operator-(double a, Term b) {
  return b.graph->constant(a) - b;
}

Term operator*(Term a, Term b) {
  return a.graph->add(TermOp::Multiply, a, b);
}

Term operator*(Term a, double b) {
  return a * a.graph->constant(b);
}

Term operator*(double a, Term b) {
  return b * a;
}

Term operator/(Term a, Term b) {
  return a.graph->add(TermOp::Divide, a, b);
}

Term operator/(Term a, double b) {
  return a / a.graph->constant(b);
}

Term operator/(double a, Term b) {
  return b.graph->constant(a) / b;
}

Term operator<(Term a, Term b) {
  return a.graph->add(TermOp::Less, a, b);
}

Term operator<(Term a, double b) {
  return a < a.graph->constant(b);
}

Term operator<(double a, Term b) {
  return b.graph->constant(a) < b;
}

Term operator<=(Term a, Term b) {
  return a.graph->add(TermOp::LessEqual, a, b);
}

Term operator<=(double a, Term b) {
  return b.graph->constant(a) <= b;
}

Term floorOf(Term a) {
  return a.graph->add(TermOp::Floor, a);
}

Term fractionOf(Term a) {
  return a.graph->add(TermOp::Fraction, a);
}

Term absOf(Term a) {
  return a.graph->add(TermOp::Abs, a);
}

Term clamped(Term a) {
  return a.graph->add(TermOp::Clamp, a);
}

Term smoothed(Term a) {
  return a.graph->add(TermOp::Smooth, a);
}

Term rootOf(Term a) {
  return a.graph->add(TermOp::Root, a);
}

Term cosineOf(Term turns) {
  return turns.graph->add(TermOp::Cosine, turns);
}

Term sineOf(Term turns) {
  return cosineOf(turns - 0.25);
}

Term powerOf2(Term a) {
  return a.graph->add(TermOp::PowerOf2, a);
}

Term exponentialOf(Term a) {
  return powerOf2(a * std::numbers::log2e);
}

Term powerOf(Term base, Term exponent) {
  return powerOf2(exponent * base.graph->add(TermOp::Logarithm, base));
}

Term lower(Term a, Term b) {
  return a.graph->add(TermOp::Min, a, b);
}

Term higher(Term a, Term b) {
  return a.graph->add(TermOp::Max, a, b);
}

Term moduloOf(Term a, double b) {
  return a.graph->add(TermOp::Modulo, a, a.graph->constant(b));
}

Term Graph::choose(Term condition, Term then, Term otherwise) {
  if (then.node == otherwise.node) return then;
  if (isConstant(condition)) return (*this)[condition].number != 0 ? then : otherwise;
  Node node;
  node.op = TermOp::Choose;
  node.from = {condition.node, then.node, otherwise.node};
  node.isUniform = (*this)[condition].isUniform && (*this)[then].isUniform && (*this)[otherwise].isUniform;
  return put(node);
}

Term choose(Term condition, Term then, Term otherwise) {
  return condition.graph->choose(condition, then, otherwise);
}

Term choose(Term condition, Term then, double otherwise) {
  return choose(condition, then, condition.graph->constant(otherwise));
}

Term eased(Term from, Term width, Term x) {
  const Graph& graph = *x.graph;
  if (graph[width].op == TermOp::Constant && graph[width].number <= 0) return from <= x;
  return smoothed((x - from) * (1.0 / width));
}

Term alongLines(Term x, const std::vector<std::pair<double, double>>& points) {
  Graph& graph = *x.graph;
  if (points.empty()) return graph.constant(0);
  Term value = graph.constant(points.front().second);
  for (std::size_t i = 1; i < points.size(); ++i) {
    const auto& [from, low] = points[i - 1];
    const auto& [to, high] = points[i];
    if (high == low) continue;
    const Term share = to > from ? clamped((x - from) / (to - from)) : graph.constant(from) <= x;
    value = value + share * (high - low);
  }
  return value;
}

}  // namespace chispa::board
