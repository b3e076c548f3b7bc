// SPDX-License-Identifier: GPL-3.0-or-later
// Colours that lie along a straight line: a sweep in place of a program.
#include <algorithm>
#include <cmath>

#include "core/board/programwriter.h"

namespace chispa::board {

std::optional<ProgramWriter::Sweep> ProgramWriter::findSweep() {
  Sweep sweep;
  for (std::uint32_t c = 0; c < 3; ++c) {
    const Node node = nodeAt(light_[c].node);
    int channel = light_[c].node;
    Term level = graph_.constant(1);
    if (node.op == TermOp::Multiply) {
      const bool isFirst = nodeAt(node.from[0]).op == TermOp::Channel;
      channel = node.from[isFirst ? 0 : 1];
      level = term(node.from[isFirst ? 1 : 0]);
    }
    const Node looked = nodeAt(channel);
    if (looked.op != TermOp::Channel || looked.word != c || looked.isUniform || !nodeAt(level.node).isUniform)
      return std::nullopt;
    if (c > 0 && (looked.from[0] != sweep.lookUp || level.node != sweep.level.node)) return std::nullopt;
    sweep.lookUp = looked.from[0];
    sweep.level = level;
  }
  const auto place = lineOf(nodeAt(sweep.lookUp).from[0]);
  constexpr double kMaxEach = 60;
  if (!place || std::abs(place->each) > kMaxEach) return std::nullopt;
  // Its numbers are of 8.24 bits: of turns only the part behind the point counts, of others all.
  if (!graph_.palettes()[nodeAt(sweep.lookUp).word].goesRound) return std::nullopt;
  sweep.place = *place;
  return sweep;
}

std::optional<ProgramWriter::Line> ProgramWriter::lineOf(int i) {
  const Node node = nodeAt(i);
  if (node.isUniform) return Line{term(i), 0};
  const auto of = [&](std::size_t k) { return lineOf(node.from[k]); };
  switch (node.op) {
    case TermOp::Input:
      return lineOfInput(graph_.inputs()[node.word]);
    case TermOp::Negate:
      if (const auto a = of(0)) return Line{-a->first, -a->each};
      return std::nullopt;
    case TermOp::Add:
    case TermOp::Subtract: {
      const auto a = of(0);
      const auto b = of(1);
      if (!a || !b) return std::nullopt;
      return node.op == TermOp::Add ? Line{a->first + b->first, a->each + b->each}
                                    : Line{a->first - b->first, a->each - b->each};
    }
    case TermOp::Multiply: {
      const bool isFirst = nodeAt(node.from[0]).op == TermOp::Constant;
      const Node factor = nodeAt(node.from[isFirst ? 0 : 1]);
      const auto line = of(isFirst ? 1 : 0);
      if (factor.op != TermOp::Constant || !line) return std::nullopt;
      return Line{line->first * factor.number, line->each * factor.number};
    }
    default:
      return std::nullopt;
  }
}

std::optional<ProgramWriter::Line> ProgramWriter::lineOfInput(const std::vector<float>& values) {
  const auto first = static_cast<double>(values.front());
  const double each = eachOf(values);
  for (std::size_t i = 0; i < values.size(); ++i)
    if (std::abs(first + each * static_cast<double>(i) - static_cast<double>(values[i])) > kRowTolerance)
      return std::nullopt;
  return Line{graph_.constant(first), each};
}

std::optional<WrittenProgram> ProgramWriter::writeSweep(const Sweep& sweep) {
  const std::array<Term, 2> kept = {sweep.place.first, sweep.level};
  for (const Term& one : kept) use(one.node, false);
  takeConstants();
  writeFrame();
  const std::size_t colours = palette(nodeAt(sweep.lookUp).word);
  Blob::Bytes body = headOfBody();
  putRegister(ready(sweep.place.first.node), body);
  constexpr double kUnit = 16777216;
  putBytes(body, static_cast<std::uint64_t>(std::llround(sweep.place.each * kUnit)), 4);
  putRegister(ready(sweep.level.node), body);
  putBytes(body, colours, 3);
  if (registers_.most() > kMaxRegisters || constants_.size() > 255) return std::nullopt;
  WrittenProgram written;
  written.isSweep = true;
  written.registers = registers_.most();
  written.stepsOfFrame = stepsOfFrame_;
  // As much as so many plain steps, about.
  written.stepsOfCell = 15;
  written.at = blob_.share(body);
  return written;
}

}  // namespace chispa::board
