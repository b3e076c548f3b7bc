// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/board/condense.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <optional>
#include <set>

namespace chispa::board {
namespace {

using Node = Graph::Node;

/// A number that light may be a palette over: a node, and how it becomes a place 0–1.
struct Cut {
  int node = -1;
  /// It counts in turns: only the part behind the point matters.
  bool isTurns = false;
  /// Of −1 to 1.
  bool isSigned = false;

  double valueAt(double place) const { return isSigned ? 2 * place - 1 : place; }
};

class Condenser {
 public:
  Condenser(Graph& graph, const std::array<Term, 3>& light) : graph_(graph), light_(light) {}

  std::array<Term, 3> run() {
    std::set<int> reached;
    for (const Term& term : light_) collect(term.node, reached);
    std::optional<Cut> best;
    std::size_t most = kLeastSaved;
    for (const int node : reached)
      for (const Cut& cut : cutsAt(node))
        if (const auto saved = nodesAbove(cut); saved && *saved > most) {
          best = cut;
          most = *saved;
        }
    return best ? lookedUp(*best) : light_;
  }

 private:
  /// A look-up of a palette with its three channels is no saving.
  static constexpr std::size_t kLeastSaved = 5;

  const Node& nodeAt(int i) const { return graph_.nodes()[static_cast<std::size_t>(i)]; }

  void collect(int i, std::set<int>& reached) const {
    if (!reached.insert(i).second) return;
    for (const int from : nodeAt(i).from)
      if (from >= 0) collect(from, reached);
  }

  std::vector<Cut> cutsAt(int i) const {
    const Node& node = nodeAt(i);
    if (node.isUniform) return {};
    switch (node.op) {
      case TermOp::Fraction:
        return {{i, false, false}, {node.from[0], true, false}};
      case TermOp::Clamp:
      case TermOp::Smooth:
      case TermOp::Unit:
      case TermOp::Noise:
      case TermOp::Chance:
        return {{i, false, false}};
      case TermOp::Cosine:
        return {{i, false, true}, {node.from[0], true, false}};
      default:
        return {};
    }
  }

  /// How many nodes are worked out once the cut is known; nothing if it does not decide alone.
  std::optional<std::size_t> nodesAbove(const Cut& cut) const {
    std::set<int> seen;
    for (const Term& term : light_)
      if (!isDecided(term.node, cut, seen)) return std::nullopt;
    return seen.size();
  }
  bool isDecided(int i, const Cut& cut, std::set<int>& seen) const {
    const Node& node = nodeAt(i);
    if (i == cut.node) return !cut.isTurns;
    if (node.op == TermOp::Constant) return true;
    const bool readsTurns = node.op == TermOp::Cosine || node.op == TermOp::Fraction;
    if (cut.isTurns && readsTurns && node.from[0] == cut.node) {
      seen.insert(i);
      return true;
    }
    if (!isNumeric(node.op)) return false;
    if (!seen.insert(i).second) return true;
    for (const int from : node.from)
      if (from >= 0 && !isDecided(from, cut, seen)) return false;
    return true;
  }
  static bool isNumeric(TermOp op) {
    switch (op) {
      case TermOp::Constant:
      case TermOp::WordConstant:
      case TermOp::Input:
      case TermOp::Ramp:
      case TermOp::Noise:
      case TermOp::Chance:
      case TermOp::Word:
      case TermOp::MixWord:
      case TermOp::AddWord:
      case TermOp::XorWord:
      case TermOp::TimesWord:
      case TermOp::ShiftWord:
      case TermOp::Unit:
        return false;
      default:
        return true;
    }
  }

  /// What a node is where the cut has a value.
  double evaluate(int i, const Cut& cut, double value, std::map<int, double>& known) const {
    if (i == cut.node) return value;
    if (const auto found = known.find(i); found != known.end()) return found->second;
    const Node& node = nodeAt(i);
    double result = node.number;
    if (node.op == TermOp::Channel) {
      const Node& looked = nodeAt(node.from[0]);
      result =
          paletteAt(graph_.palettes()[looked.word], node.word, evaluate(looked.from[0], cut, value, known));
    } else if (node.op != TermOp::Constant) {
      std::array<double, 3> from{};
      for (std::size_t k = 0; k < 3; ++k)
        if (node.from[k] >= 0) from[k] = evaluate(node.from[k], cut, value, known);
      result = valueOf(node.op, from);
    }
    return known[i] = result;
  }
  static double paletteAt(const BoardPalette& palette, std::uint32_t channel, double place) {
    const double at = palette.goesRound ? place - std::floor(place) : std::clamp(place, 0.0, 1.0);
    const double x = at * static_cast<double>(palette.entries.size() - 1);
    const auto low = std::min(static_cast<std::size_t>(x), palette.entries.size() - 2);
    const auto from = static_cast<double>(palette.entries[low][channel]);
    const auto to = static_cast<double>(palette.entries[low + 1][channel]);
    return from + (to - from) * (x - static_cast<double>(low));
  }

  std::array<Term, 3> lookedUp(const Cut& cut) {
    constexpr int kSteps = 1024;
    // Just below a whole turn, so that an edge there stays one.
    constexpr double kEnd = 1 - 1e-9;
    BoardPalette palette{{}, cut.isTurns};
    for (int i = 0; i <= kSteps; ++i) {
      std::map<int, double> known;
      const double value = cut.valueAt(std::min(kEnd, static_cast<double>(i) / kSteps));
      std::array<float, 3> entry{};
      for (std::size_t c = 0; c < 3; ++c)
        entry[c] = static_cast<float>(std::clamp(evaluate(light_[c].node, cut, value, known), 0.0, 1.0));
      palette.entries.push_back(entry);
    }
    const Term place{&graph_, cut.node};
    return graph_.lookUp(palette, cut.isSigned ? (place + 1.0) * 0.5 : place);
  }

  Graph& graph_;
  const std::array<Term, 3> light_;
};

}  // namespace

std::array<Term, 3> condensed(Graph& graph, const std::array<Term, 3>& light) {
  return Condenser(graph, light).run();
}

}  // namespace chispa::board
