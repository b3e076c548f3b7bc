// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/board/program.h"

#include <algorithm>
#include <cmath>
#include <initializer_list>
#include <map>
#include <set>
#include <utility>

#include "core/board/steps.h"

namespace chispa::board {
namespace {

/// Steps name registers by their place in bytes.
constexpr int kRegisterBytes = 4;
constexpr int kMaxRegisters = 64;

std::int32_t fixedOf(double value) {
  constexpr double kOne = 65536;
  // Numbers wrap around, as sums of them do.
  return static_cast<std::int32_t>(static_cast<std::uint32_t>(
      static_cast<std::int64_t>(std::llround(std::clamp(value, -1e9, 1e9) * kOne))));
}

/// Which registers are taken.
class Registers {
 public:
  int take() { return takeRow(1); }
  int takeRow(int count) {
    for (int first = 0;; ++first) {
      bool isFree = true;
      for (int i = first; i < first + count && isFree; ++i) isFree = !taken_.contains(i);
      if (!isFree) continue;
      for (int i = first; i < first + count; ++i) taken_.insert(i);
      most_ = std::max(most_, first + count);
      return first;
    }
  }
  void release(int one) { taken_.erase(one); }
  int most() const { return most_; }

 private:
  std::set<int> taken_;
  int most_ = 0;
};

class ProgramWriter {
 public:
  ProgramWriter(Graph& graph, const std::array<Term, 3>& light, const CellPixels& pixels,
                const Response& response, Blob& blob)
      : graph_(graph), light_(light), pixels_(pixels), response_(response), blob_(blob) {}

  std::optional<WrittenProgram> write() {
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

 private:
  using Node = Graph::Node;
  const Node& nodeAt(int i) const { return graph_.nodes()[static_cast<std::size_t>(i)]; }

  static bool isConstant(const Node& node) {
    return node.op == TermOp::Constant || node.op == TermOp::WordConstant;
  }

  // ---- What is needed, and how often ----

  /// `fromFrame` is whether the user is computed once a frame.
  void use(int i, bool fromFrame) {
    uses_.resize(graph_.nodes().size(), 0);
    isFrontier_.resize(graph_.nodes().size(), false);
    const Node& node = nodeAt(i);
    if (node.isUniform && !fromFrame) isFrontier_[static_cast<std::size_t>(i)] = true;
    if (uses_[static_cast<std::size_t>(i)]++ > 0) return;
    for (const int from : node.from)
      if (from >= 0) use(from, node.isUniform);
  }
  bool isUsed(int i) const {
    return i < static_cast<int>(uses_.size()) && uses_[static_cast<std::size_t>(i)] > 0;
  }

  /// Constants that are read for each cell stand in registers; others where they are needed.
  void takeConstants() {
    for (int i = 0; i < static_cast<int>(graph_.nodes().size()); ++i) {
      if (!isUsed(i) || !isConstant(nodeAt(i)) || !isFrontier_[static_cast<std::size_t>(i)]) continue;
      const std::int32_t value = bitsOf(nodeAt(i));
      const auto known = std::find(constants_.begin(), constants_.end(), value);
      registerOf_[i] = static_cast<int>(known - constants_.begin());
      if (known == constants_.end()) constants_.push_back(value);
    }
    for (std::size_t i = 0; i < constants_.size(); ++i) registers_.take();
  }
  static std::int32_t bitsOf(const Node& constant) {
    return constant.op == TermOp::Constant ? fixedOf(constant.number)
                                           : static_cast<std::int32_t>(constant.word);
  }
  static std::int32_t rateOf(const Node& ramp) {
    constexpr double kRate = 4294967296.0 / 1000;
    return static_cast<std::int32_t>(
        std::llround(std::clamp(ramp.rate * kRate, -2147483647.0, 2147483647.0)));
  }

  void takeInputs() {
    for (int i = 0; i < static_cast<int>(graph_.nodes().size()); ++i)
      if (isUsed(i) && nodeAt(i).op == TermOp::Input) {
        registerOf_[i] = registers_.take();
        inputs_.push_back(i);
      }
  }

  // ---- Steps ----

  void step(Code code, std::initializer_list<int> registers) {
    code_.push_back(code);
    for (const int one : registers) putRegister(one, code_);
    steps_ += weightOf(code);
  }
  static void putRegister(int number, Blob::Bytes& to) {
    to.push_back(static_cast<std::uint8_t>(number * kRegisterBytes));
  }

  bool isStored(int i) const { return registerOf_.contains(i); }
  bool hasFixedStart(int i) const {
    const Node& node = nodeAt(i);
    return node.op == TermOp::Input || isFrontier_[static_cast<std::size_t>(i)];
  }

  /// A use of `i` is over.
  void release(int i) {
    if (--uses_[static_cast<std::size_t>(i)] > 0 || hasFixedStart(i)) return;
    const Node& node = nodeAt(i);
    if (node.op == TermOp::Channel) return releaseChannel(node);
    const auto found = registerOf_.find(i);
    if (found == registerOf_.end()) return;
    registers_.release(found->second);
    registerOf_.erase(found);
  }
  void releaseChannel(const Node& channel) {
    const int looked = channel.from[0];
    if (--uses_[static_cast<std::size_t>(looked)] > 0 || hasFixedStart(looked)) return;
    const int first = registerOf_.at(looked);
    for (int c = 0; c < 3; ++c) registers_.release(first + c);
    registerOf_.erase(looked);
  }

  /// The register that holds `i`, computed now if it has not been.
  int ready(int i) {
    const Node& node = nodeAt(i);
    if (node.op == TermOp::Channel) return lookedUp(node.from[0]) + static_cast<int>(node.word);
    if (!isStored(i)) compute(i);
    return registerOf_.at(i);
  }
  int lookedUp(int i) {
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

  void compute(int i) {
    const Node node = nodeAt(i);
    if (node.op == TermOp::Ramp || isConstant(node)) {
      const int to = registers_.take();
      registerOf_[i] = to;
      step(node.op == TermOp::Ramp ? RampOf : ConstantOf, {to});
      putBytes(code_,
               static_cast<std::uint32_t>(node.op == TermOp::Ramp ? fixedOf(node.number) : bitsOf(node)), 4);
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

  // ---- Sweeps ----

  /// A value that changes by the same from cell to cell: `first` of the first one, and `each` more.
  struct Line {
    Term first;
    double each = 0;
  };
  struct Sweep {
    int lookUp = -1;
    Line place;
    /// What all colours are multiplied by.
    Term level;
  };

  Term term(int i) { return {&graph_, i}; }

  std::optional<Sweep> findSweep() {
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
      if (looked.op != TermOp::Channel || looked.word != c || looked.isUniform ||
          !nodeAt(level.node).isUniform)
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

  std::optional<Line> lineOf(int i) {
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
  std::optional<Line> lineOfInput(const std::vector<float>& values) {
    const auto first = static_cast<double>(values.front());
    const double each = eachOf(values);
    for (std::size_t i = 0; i < values.size(); ++i)
      if (std::abs(first + each * static_cast<double>(i) - static_cast<double>(values[i])) > kRowTolerance)
        return std::nullopt;
    return Line{graph_.constant(first), each};
  }

  std::optional<WrittenProgram> writeSweep(const Sweep& sweep) {
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

  // ---- The parts of the body ----

  void writeFrame() {
    for (int i = 0; i < static_cast<int>(graph_.nodes().size()); ++i)
      if (i < static_cast<int>(isFrontier_.size()) && isFrontier_[static_cast<std::size_t>(i)]) ready(i);
    step(End, {});
    frame_ = std::move(code_);
    code_.clear();
    stepsOfFrame_ = std::exchange(steps_, 0);
  }

  /// A factor of all three colours, or −1: where it is 0 the cell is dark, and the rest need not be computed.
  int commonFactor() const {
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

  /// Where the cell is dark its steps end: as soon as the condition is known that makes it so.
  void endIfDark(int factor) {
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

  void writeCell() {
    if (const int factor = commonFactor(); factor >= 0) endIfDark(factor);
    std::array<int, 3> light{};
    for (std::size_t c = 0; c < 3; ++c) light[c] = ready(light_[c].node);
    step(Out, {light[0], light[1], light[2]});
    step(End, {});
  }

  /// A palette with as few segments as show it rightly.
  std::size_t palette(std::uint32_t number) {
    const BoardPalette& colours = graph_.palettes()[number];
    // Bytes are enough where light and values are in proportion; else dim light needs more.
    const bool isWide = !response_.isEven();
    const std::size_t maxSegments = isWide ? 256 : 128;
    std::size_t segments = 1;
    while (segments < maxSegments && errorOf(colours, segments) > kPaletteError) segments *= 2;
    const int bytesOfChannel = isWide ? 2 : 1;
    Blob::Bytes bytes = {static_cast<std::uint8_t>((colours.goesRound ? 1 : 0) | (isWide ? 2 : 0))};
    putBytes(bytes, segments, 2);
    const std::size_t step = (colours.entries.size() - 1) / segments;
    const float full = isWide ? 65535 : 255;
    for (std::size_t i = 0; i <= segments; ++i)
      for (const float channel : colours.entries[i * step])
        putBytes(bytes, static_cast<std::uint64_t>(std::lround(std::clamp(channel, 0.f, 1.f) * full)),
                 bytesOfChannel);
    return blob_.share(bytes);
  }
  /// The largest error of straight lines between every so many entries, in what the strip is told.
  double errorOf(const BoardPalette& colours, std::size_t segments) {
    const std::size_t step = (colours.entries.size() - 1) / segments;
    const auto told = [this](double light) { return response_.valueOf(light); };
    double worst = 0;
    for (std::size_t i = 0; i < colours.entries.size(); ++i) {
      const std::size_t low = std::min(i / step, segments - 1) * step;
      const double share = static_cast<double>(i - low) / static_cast<double>(step);
      for (std::size_t c = 0; c < 3; ++c) {
        const auto from = static_cast<double>(colours.entries[low][c]);
        const auto to = static_cast<double>(colours.entries[low + step][c]);
        worst = std::max(worst, std::abs(told(from + (to - from) * share) -
                                         told(static_cast<double>(colours.entries[i][c]))));
      }
    }
    return worst;
  }
  static constexpr double kPaletteError = 1.0 / 255;

  void putInput(int node, Blob::Bytes& to) {
    const std::vector<float>& values = graph_.inputs()[nodeAt(node).word];
    putRegister(registerOf_.at(node), to);
    if (putRow(values, to)) return;
    constexpr double kOne = 65536;
    constexpr double kTolerance = 1.0;
    double most = 0;
    for (const float v : values) most = std::max(most, std::abs(static_cast<double>(v)) * kOne);
    int shift = 0;
    while (most / std::exp2(shift) > 32767.5) ++shift;
    const auto short16 = [shift](float v) {
      const double scaled = std::round(static_cast<double>(v) * kOne / std::exp2(shift));
      return std::clamp(scaled, -32768.0, 32767.0);
    };
    const bool isShort = std::all_of(values.begin(), values.end(), [&](float v) {
      return std::abs(short16(v) * std::exp2(shift) - static_cast<double>(v) * kOne) <= kTolerance;
    });
    Blob::Bytes table;
    for (const float v : values)
      putBytes(table,
               static_cast<std::uint64_t>(static_cast<std::int64_t>(
                   isShort ? short16(v) : static_cast<double>(fixedOf(static_cast<double>(v))))),
               isShort ? 2 : 4);
    to.push_back(isShort ? 1 : 2);
    to.push_back(static_cast<std::uint8_t>(shift));
    putBytes(to, blob_.share(table), 3);
  }
  static constexpr double kRowTolerance = 1e-5;
  static double eachOf(const std::vector<float>& values) {
    return values.size() > 1 ? (static_cast<double>(values.back()) - static_cast<double>(values.front())) /
                                   static_cast<double>(values.size() - 1)
                             : 0;
  }
  /// Values at equal steps, if they are.
  static bool putRow(const std::vector<float>& values, Blob::Bytes& to) {
    constexpr double kUnit = 16777216;
    constexpr double kMax = 120;
    const auto first = static_cast<double>(values.front());
    const double each = eachOf(values);
    for (std::size_t i = 0; i < values.size(); ++i) {
      const auto value = static_cast<double>(values[i]);
      if (std::abs(value) > kMax || std::abs(first + each * static_cast<double>(i) - value) > kRowTolerance)
        return false;
    }
    to.push_back(0);
    // Half a step of the board's numbers, so that they are rounded.
    constexpr double kHalf = 128;
    putBytes(to, static_cast<std::uint64_t>(std::llround(first * kUnit + kHalf)), 4);
    putBytes(to, static_cast<std::uint64_t>(std::llround(each * kUnit)), 4);
    return true;
  }

  std::size_t map() {
    Blob::Bytes bytes;
    if (const auto step = rowStep()) {
      bytes.push_back(1);
      putBytes(bytes, pixels_.front().front(), 2);
      putBytes(bytes, static_cast<std::uint64_t>(static_cast<std::int64_t>(*step)), 2);
      return blob_.share(bytes);
    }
    bytes.push_back(0);
    for (const auto& cell : pixels_) {
      bytes.push_back(static_cast<std::uint8_t>(cell.size()));
      for (const std::uint16_t pixel : cell) putBytes(bytes, pixel, 2);
    }
    return blob_.share(bytes);
  }
  /// How far it is from each cell's only pixel to the next one's, if it is the same everywhere.
  std::optional<int> rowStep() const {
    for (const auto& cell : pixels_)
      if (cell.size() != 1) return std::nullopt;
    if (pixels_.size() == 1) return 0;
    const int step = pixels_[1][0] - pixels_[0][0];
    for (std::size_t i = 1; i < pixels_.size(); ++i)
      if (pixels_[i][0] - pixels_[i - 1][0] != step) return std::nullopt;
    return step;
  }

  /// Constants, what is done once a frame, and which values each cell has.
  Blob::Bytes headOfBody() {
    Blob::Bytes body = {static_cast<std::uint8_t>(constants_.size())};
    for (const std::int32_t value : constants_) putBytes(body, static_cast<std::uint32_t>(value), 4);
    putBytes(body, frame_.size(), 2);
    body.insert(body.end(), frame_.begin(), frame_.end());
    putBytes(body, pixels_.size(), 2);
    putBytes(body, map(), 3);
    return body;
  }

  std::optional<WrittenProgram> finish() {
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

  Graph& graph_;
  const std::array<Term, 3>& light_;
  const CellPixels& pixels_;
  const Response& response_;
  Blob& blob_;
  std::vector<int> uses_;
  /// Nodes that are computed once a frame and read for each cell.
  std::vector<bool> isFrontier_;
  std::vector<std::int32_t> constants_;
  std::map<int, int> registerOf_;
  std::vector<int> inputs_;
  Registers registers_;
  Blob::Bytes frame_;
  Blob::Bytes code_;
  int steps_ = 0;
  int stepsOfFrame_ = 0;
};

}  // namespace

std::optional<WrittenProgram> writeProgram(Graph& graph, const std::array<Term, 3>& light,
                                           const CellPixels& pixels, const Response& response, Blob& blob) {
  return ProgramWriter(graph, light, pixels, response, blob).write();
}

}  // namespace chispa::board
