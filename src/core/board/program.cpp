// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/board/program.h"

#include <algorithm>
#include <cmath>

#include "core/board/programwriter.h"

namespace chispa::board {
namespace {

/// Steps name registers by their place in bytes.
constexpr int kRegisterBytes = 4;

}  // namespace

std::int32_t ProgramWriter::fixedOf(double value) {
  constexpr double kOne = 65536;
  // Numbers wrap around, as sums of them do.
  return static_cast<std::int32_t>(static_cast<std::uint32_t>(
      static_cast<std::int64_t>(std::llround(std::clamp(value, -1e9, 1e9) * kOne))));
}

std::optional<WrittenProgram> ProgramWriter::write() {
  if (std::any_of(pixels_.begin(), pixels_.end(), [](const auto& cell) { return cell.size() > 255; }))
    return std::nullopt;
  if (const auto sweep = findSweep()) return writeSweep(*sweep);
  for (const Term& term : light_) use(term.node, false);
  takeConstants();
  takeInputs();
  writeFrame();
  writeCell();
  if (registers_.most() > kMaxRegisters) return std::nullopt;
  return finish();
}

bool ProgramWriter::isConstant(const Node& node) {
  return node.op == TermOp::Constant || node.op == TermOp::WordConstant;
}

void ProgramWriter::use(int i, bool fromFrame) {
  uses_.resize(graph_.nodes().size(), 0);
  isFrontier_.resize(graph_.nodes().size(), false);
  const Node& node = nodeAt(i);
  if (node.isUniform && !fromFrame) isFrontier_[static_cast<std::size_t>(i)] = true;
  if (uses_[static_cast<std::size_t>(i)]++ > 0) return;
  for (const int from : node.from)
    if (from >= 0) use(from, node.isUniform);
}

bool ProgramWriter::isUsed(int i) const {
  return i < static_cast<int>(uses_.size()) && uses_[static_cast<std::size_t>(i)] > 0;
}

void ProgramWriter::takeConstants() {
  for (int i = 0; i < static_cast<int>(graph_.nodes().size()); ++i) {
    if (!isUsed(i) || !isConstant(nodeAt(i)) || !isFrontier_[static_cast<std::size_t>(i)]) continue;
    const std::int32_t value = bitsOf(nodeAt(i));
    const auto known = std::find(constants_.begin(), constants_.end(), value);
    registerOf_[i] = static_cast<int>(known - constants_.begin());
    if (known == constants_.end()) constants_.push_back(value);
  }
  for (std::size_t i = 0; i < constants_.size(); ++i) registers_.take();
}

std::int32_t ProgramWriter::bitsOf(const Node& constant) {
  return constant.op == TermOp::Constant ? fixedOf(constant.number)
                                         : static_cast<std::int32_t>(constant.word);
}

std::int32_t ProgramWriter::rateOf(const Node& ramp) {
  constexpr double kRate = 4294967296.0 / 1000;
  return static_cast<std::int32_t>(std::llround(std::clamp(ramp.rate * kRate, -2147483647.0, 2147483647.0)));
}

void ProgramWriter::takeInputs() {
  for (int i = 0; i < static_cast<int>(graph_.nodes().size()); ++i)
    if (isUsed(i) && nodeAt(i).op == TermOp::Input) {
      registerOf_[i] = registers_.take();
      inputs_.push_back(i);
    }
}

void ProgramWriter::step(Code code, std::initializer_list<int> registers) {
  code_.push_back(code);
  for (const int one : registers) putRegister(one, code_);
  steps_ += weightOf(code);
}

void ProgramWriter::putRegister(int number, Blob::Bytes& to) {
  to.push_back(static_cast<std::uint8_t>(number * kRegisterBytes));
}

bool ProgramWriter::hasFixedStart(int i) const {
  const Node& node = nodeAt(i);
  return node.op == TermOp::Input || isFrontier_[static_cast<std::size_t>(i)];
}

void ProgramWriter::release(int i) {
  if (--uses_[static_cast<std::size_t>(i)] > 0 || hasFixedStart(i)) return;
  const Node& node = nodeAt(i);
  if (node.op == TermOp::Channel) return releaseChannel(node);
  const auto found = registerOf_.find(i);
  if (found == registerOf_.end()) return;
  registers_.release(found->second);
  registerOf_.erase(found);
}

void ProgramWriter::releaseChannel(const Node& channel) {
  const int looked = channel.from[0];
  if (--uses_[static_cast<std::size_t>(looked)] > 0 || hasFixedStart(looked)) return;
  const int first = registerOf_.at(looked);
  for (int c = 0; c < 3; ++c) registers_.release(first + c);
  registerOf_.erase(looked);
}

int ProgramWriter::ready(int i) {
  const Node& node = nodeAt(i);
  if (node.op == TermOp::Channel) return lookedUp(node.from[0]) + static_cast<int>(node.word);
  if (!isStored(i)) compute(i);
  return registerOf_.at(i);
}

int ProgramWriter::lookedUp(int i) {
  if (isStored(i)) return registerOf_.at(i);
  const Node& node = nodeAt(i);
  const int place = ready(node.from[0]);
  release(node.from[0]);
  const int first = registers_.takeRow(3);
  step(PaletteAt, {first, place});
  putBytes(code_, palette(node.word), 3);
  registerOf_[i] = first;
  return first;
}

void ProgramWriter::compute(int i) {
  const Node node = nodeAt(i);
  if (node.op == TermOp::Ramp || isConstant(node)) {
    const int to = registers_.take();
    registerOf_[i] = to;
    step(node.op == TermOp::Ramp ? RampOf : ConstantOf, {to});
    putBytes(code_, static_cast<std::uint32_t>(node.op == TermOp::Ramp ? fixedOf(node.number) : bitsOf(node)),
             4);
    if (node.op == TermOp::Ramp) putBytes(code_, static_cast<std::uint32_t>(rateOf(node)), 4);
    return;
  }
  std::vector<int> operands;
  for (const int from : node.from)
    if (from >= 0) operands.push_back(ready(from));
  // What is read for the last time makes room for the result.
  for (const int from : node.from)
    if (from >= 0) release(from);
  const int to = registers_.take();
  registerOf_[i] = to;
  step(codeOf(node.op), {to});
  for (const int operand : operands) putRegister(operand, code_);
  if (node.op == TermOp::ShiftWord) code_.push_back(static_cast<std::uint8_t>(node.word));
}

void ProgramWriter::writeFrame() {
  for (int i = 0; i < static_cast<int>(graph_.nodes().size()); ++i)
    if (i < static_cast<int>(isFrontier_.size()) && isFrontier_[static_cast<std::size_t>(i)]) ready(i);
  step(End, {});
  frame_ = std::move(code_);
  code_.clear();
  stepsOfFrame_ = std::exchange(steps_, 0);
}

int ProgramWriter::commonFactor() const {
  for (const int factor : nodeAt(light_[0].node).from) {
    if (factor < 0 || nodeAt(factor).isUniform || nodeAt(factor).op == TermOp::Channel) continue;
    const bool isCommon = std::all_of(light_.begin(), light_.end(), [&](const Term& term) {
      const Node& node = nodeAt(term.node);
      return node.op == TermOp::Multiply && (node.from[0] == factor || node.from[1] == factor);
    });
    if (isCommon) return factor;
  }
  return -1;
}

void ProgramWriter::endIfDark(int factor) {
  const Node node = nodeAt(factor);
  if (node.op == TermOp::Multiply)
    for (const std::size_t other : {std::size_t{0}, std::size_t{1}})
      if (nodeAt(node.from[other]).isUniform) return endIfDark(node.from[1 - other]);
  const bool isCondition = node.op == TermOp::Choose && nodeAt(node.from[2]).op == TermOp::Constant &&
                           nodeAt(node.from[2]).number == 0 && !hasFixedStart(node.from[1]) &&
                           uses_[static_cast<std::size_t>(node.from[1])] == 1 && !isStored(factor);
  if (!isCondition) return step(DarkIf, {0, ready(factor)});
  step(DarkIf, {0, ready(node.from[0])});
  release(node.from[0]);
  // From here on it is what it is if it is not dark.
  registerOf_[factor] = ready(node.from[1]);
}

void ProgramWriter::writeCell() {
  if (const int factor = commonFactor(); factor >= 0) endIfDark(factor);
  std::array<int, 3> light{};
  for (std::size_t c = 0; c < 3; ++c) light[c] = ready(light_[c].node);
  step(Out, {light[0], light[1], light[2]});
  step(End, {});
}

std::optional<WrittenProgram> ProgramWriter::finish() {
  if (constants_.size() > 255 || inputs_.size() > 255) return std::nullopt;
  Blob::Bytes body = headOfBody();
  body.push_back(static_cast<std::uint8_t>(inputs_.size()));
  for (const int input : inputs_) putInput(input, body);
  body.insert(body.end(), code_.begin(), code_.end());
  WrittenProgram written;
  written.registers = registers_.most();
  written.stepsOfFrame = stepsOfFrame_;
  written.stepsOfCell = steps_;
  written.at = blob_.share(body);
  return written;
}

std::optional<WrittenProgram> writeProgram(Graph& graph, const std::array<Term, 3>& light,
                                           const CellPixels& pixels, const Response& response, Blob& blob) {
  return ProgramWriter(graph, light, pixels, response, blob).write();
}

}  // namespace chispa::board
