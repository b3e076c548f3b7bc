// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/board/terms.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <optional>

#include "core/base/hash.h"

namespace chispa::board {
namespace {

double fractionPart(double x) {
  return x - std::floor(x);
}

double smoothPart(double x) {
  const double u = std::clamp(x, 0.0, 1.0);
  return u * u * (3 - 2 * u);
}

/// The value of an operation on one number that is known, or nothing if it is none on numbers.
std::optional<double> valueOf(TermOp op, double a) {
  switch (op) {
    case TermOp::Not:
      return a == 0 ? 1 : 0;
    case TermOp::Negate:
      return -a;
    case TermOp::Abs:
      return std::abs(a);
    case TermOp::Sign:
      return a > 0 ? 1 : a < 0 ? -1 : 0;
    case TermOp::Floor:
      return std::floor(a);
    case TermOp::Fraction:
      return fractionPart(a);
    case TermOp::Root:
      return a > 0 ? std::sqrt(a) : 0;
    case TermOp::PowerOf2:
      return std::exp2(a);
    case TermOp::Logarithm:
      return a > 0 ? std::log2(a) : -16;
    case TermOp::Cosine:
      return std::cos(2 * std::numbers::pi * a);
    case TermOp::Clamp:
      return std::clamp(a, 0.0, 1.0);
    case TermOp::Smooth:
      return smoothPart(a);
    default:
      return std::nullopt;
  }
}

std::optional<double> valueOf(TermOp op, double a, double b) {
  switch (op) {
    case TermOp::Add:
      return a + b;
    case TermOp::Subtract:
      return a - b;
    case TermOp::Multiply:
      return a * b;
    case TermOp::Divide:
      return b != 0 ? a / b : 0;
    case TermOp::Modulo:
      return b != 0 ? a - b * std::floor(a / b) : 0;
    case TermOp::Min:
      return std::min(a, b);
    case TermOp::Max:
      return std::max(a, b);
    case TermOp::Less:
      return a < b ? 1 : 0;
    case TermOp::LessEqual:
      return a <= b ? 1 : 0;
    case TermOp::Equal:
      return a == b ? 1 : 0;
    case TermOp::And:
      return a != 0 && b != 0 ? 1 : 0;
    case TermOp::Or:
      return a != 0 || b != 0 ? 1 : 0;
    default:
      return std::nullopt;
  }
}

constexpr Term kNone{};

}  // namespace

Term Graph::put(Node node) {
  const auto [found, isNew] = known_.try_emplace(node.key(), static_cast<int>(nodes_.size()));
  if (isNew) nodes_.push_back(node);
  return {this, found->second};
}

Term Graph::constant(double value) {
  Node node;
  node.number = value == 0 ? 0 : value;
  return put(node);
}

Term Graph::wordConstant(std::uint32_t word) {
  Node node;
  node.op = TermOp::WordConstant;
  node.word = word;
  return put(node);
}

Term Graph::ramp(double base, double rate) {
  if (rate == 0) return constant(base);
  Node node;
  node.op = TermOp::Ramp;
  node.number = base;
  node.rate = rate;
  return put(node);
}

Term Graph::input(std::vector<float> values) {
  if (!values.empty() &&
      std::all_of(values.begin(), values.end(), [&](float v) { return v == values.front(); }))
    return constant(static_cast<double>(values.front()));
  const auto known = std::find(inputs_.begin(), inputs_.end(), values);
  Node node;
  node.op = TermOp::Input;
  node.word = static_cast<std::uint32_t>(known - inputs_.begin());
  node.isUniform = false;
  if (known == inputs_.end()) inputs_.push_back(std::move(values));
  return put(node);
}

Term Graph::simplerSum(TermOp op, Term a, Term b) {
  const double sign = op == TermOp::Add ? 1 : -1;
  const Node& x = (*this)[a];
  const Node& y = (*this)[b];
  if (isConstant(b, 0)) return a;
  if (isConstant(a, 0) && op == TermOp::Add) return b;
  const auto isLine = [](const Node& n) { return n.op == TermOp::Constant || n.op == TermOp::Ramp; };
  if (isLine(x) && isLine(y)) return ramp(x.number + sign * y.number, x.rate + sign * y.rate);
  return kNone;
}

Term Graph::simplerProduct(TermOp op, Term a, Term b) {
  if (op == TermOp::Multiply && isConstant(a)) std::swap(a, b);
  if (!isConstant(b)) return kNone;
  const double factor = (*this)[b].number;
  if (factor == 1) return a;
  if (factor == 0) return constant(0);
  const Node& x = (*this)[a];
  const double scale = op == TermOp::Multiply ? factor : 1 / factor;
  if (x.op == TermOp::Ramp) return ramp(x.number * scale, x.rate * scale);
  if (op == TermOp::Multiply && factor == -1) return add(TermOp::Negate, a);
  // A product is quicker than a division, and as exact where its factor is.
  const double bits = scale * 65536;
  if (op == TermOp::Divide && bits == std::round(bits)) return add(TermOp::Multiply, a, constant(scale));
  return kNone;
}

Term Graph::simplerWord(TermOp op, Term a, Term b) {
  if (!isWord(a) || !isWord(b)) return kNone;
  const std::uint32_t x = (*this)[a].word;
  const std::uint32_t y = (*this)[b].word;
  switch (op) {
    case TermOp::AddWord:
      return wordConstant(x + y);
    case TermOp::XorWord:
      return wordConstant(x ^ y);
    case TermOp::TimesWord:
      return wordConstant(x * y);
    default:
      return kNone;
  }
}

Term Graph::simpler(TermOp op, Term a, Term b) {
  if (isConstant(a) && isConstant(b))
    if (const auto value = valueOf(op, (*this)[a].number, (*this)[b].number)) return constant(*value);
  switch (op) {
    case TermOp::Add:
    case TermOp::Subtract:
      return simplerSum(op, a, b);
    case TermOp::Multiply:
    case TermOp::Divide:
      return simplerProduct(op, a, b);
    case TermOp::AddWord:
    case TermOp::XorWord:
    case TermOp::TimesWord:
      return simplerWord(op, a, b);
    default:
      return kNone;
  }
}

Term Graph::add(TermOp op, Term a) {
  const Node& x = (*this)[a];
  if (x.op == TermOp::Constant) {
    if (op == TermOp::Word)
      return wordConstant(static_cast<std::uint32_t>(static_cast<std::int64_t>(std::floor(x.number))));
    if (const auto value = valueOf(op, x.number)) return constant(*value);
  }
  if (x.op == TermOp::WordConstant && op == TermOp::MixWord) return wordConstant(mixBits32(x.word));
  if (x.op == TermOp::WordConstant && op == TermOp::Unit)
    return constant(static_cast<double>(unitOf32(x.word)));
  if (op == TermOp::Negate && x.op == TermOp::Ramp) return ramp(-x.number, -x.rate);
  Node node;
  node.op = op;
  node.from[0] = a.node;
  node.isUniform = x.isUniform;
  return put(node);
}

Term Graph::add(TermOp op, Term a, Term b) {
  if (const Term known = simpler(op, a, b); known.graph) return known;
  Node node;
  node.op = op;
  node.from = {a.node, b.node, -1};
  node.isUniform = (*this)[a].isUniform && (*this)[b].isUniform;
  return put(node);
}

Term Graph::noise(std::uint64_t seed, Term x, Term y) {
  Node node;
  node.op = TermOp::Noise;
  // As noise() of effects begins.
  constexpr std::uint32_t kSeedFactor = 0xc2b2ae35u;
  const Term own = wordConstant(static_cast<std::uint32_t>(seed ^ seed >> 32) * kSeedFactor);
  node.from = {x.node, y.node, own.node};
  node.isUniform = (*this)[x].isUniform && (*this)[y].isUniform;
  return put(node);
}

Term Graph::chance(std::uint32_t seed, Term a, Term b) {
  if (isWord(a) && isWord(b)) {
    const auto extended = [this](Term term) {
      return static_cast<std::uint64_t>(
          static_cast<std::int64_t>(static_cast<std::int32_t>((*this)[term].word)));
    };
    return constant(static_cast<double>(chispa::chance(seed, extended(a), extended(b))));
  }
  Node node;
  node.op = TermOp::Chance;
  node.from = {a.node, b.node, wordConstant(seed).node};
  node.isUniform = (*this)[a].isUniform && (*this)[b].isUniform;
  return put(node);
}

Term Graph::shiftWord(Term a, unsigned bits) {
  if (isWord(a)) return wordConstant((*this)[a].word << bits);
  Node node;
  node.op = TermOp::ShiftWord;
  node.from[0] = a.node;
  node.word = bits;
  node.isUniform = (*this)[a].isUniform;
  return put(node);
}

std::array<Term, 3> Graph::lookUp(const BoardPalette& palette, Term place) {
  const auto known = std::find(palettes_.begin(), palettes_.end(), palette);
  Node node;
  node.op = TermOp::LookUp;
  node.from[0] = place.node;
  node.word = static_cast<std::uint32_t>(known - palettes_.begin());
  node.isUniform = (*this)[place].isUniform;
  if (known == palettes_.end()) palettes_.push_back(palette);
  const Term looked = put(node);
  std::array<Term, 3> channels;
  for (std::uint32_t c = 0; c < 3; ++c) {
    Node channel;
    channel.op = TermOp::Channel;
    channel.from[0] = looked.node;
    channel.word = c;
    channel.isUniform = node.isUniform;
    channels[c] = put(channel);
  }
  return channels;
}

double valueOf(TermOp op, const std::array<double, 3>& operands) {
  if (op == TermOp::Choose) return operands[0] != 0 ? operands[1] : operands[2];
  if (const auto value = valueOf(op, operands[0])) return *value;
  return valueOf(op, operands[0], operands[1]).value_or(0);
}

}  // namespace chispa::board
