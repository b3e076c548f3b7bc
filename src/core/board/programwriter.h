// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <algorithm>
#include <initializer_list>
#include <map>
#include <set>
#include <utility>

#include "core/board/program.h"
#include "core/board/steps.h"

namespace chispa::board {

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

/// Writes what a graph of terms computes as steps of the board.
class ProgramWriter {
 public:
  ProgramWriter(Graph& graph, const std::array<Term, 3>& light, const CellPixels& pixels,
                const Response& response, Blob& blob)
      : graph_(graph), light_(light), pixels_(pixels), response_(response), blob_(blob) {}

  std::optional<WrittenProgram> write();

 private:
  static constexpr int kMaxRegisters = 64;
  /// In 65,536ths, as the board counts.
  static std::int32_t fixedOf(double value);

  using Node = Graph::Node;
  const Node& nodeAt(int i) const { return graph_.nodes()[static_cast<std::size_t>(i)]; }

  static bool isConstant(const Node& node);

  // ---- What is needed, and how often ----

  /// `fromFrame` is whether the user is computed once a frame.
  void use(int i, bool fromFrame);
  bool isUsed(int i) const;

  /// Constants that are read for each cell stand in registers; others where they are needed.
  void takeConstants();
  static std::int32_t bitsOf(const Node& constant);
  static std::int32_t rateOf(const Node& ramp);

  void takeInputs();

  // ---- Steps ----

  void step(Code code, std::initializer_list<int> registers);
  static void putRegister(int number, Blob::Bytes& to);

  bool isStored(int i) const { return registerOf_.contains(i); }
  bool hasFixedStart(int i) const;

  /// A use of `i` is over.
  void release(int i);
  void releaseChannel(const Node& channel);

  /// The register that holds `i`, computed now if it has not been.
  int ready(int i);
  int lookedUp(int i);

  void compute(int i);

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

  std::optional<Sweep> findSweep();

  std::optional<Line> lineOf(int i);
  std::optional<Line> lineOfInput(const std::vector<float>& values);

  std::optional<WrittenProgram> writeSweep(const Sweep& sweep);

  // ---- The parts of the body ----

  void writeFrame();

  /// A factor of all three colours, or −1: where it is 0 the cell is dark, and the rest need not be computed.
  int commonFactor() const;

  /// Where the cell is dark its steps end: as soon as the condition is known that makes it so.
  void endIfDark(int factor);

  void writeCell();

  /// A palette with as few segments as show it rightly.
  std::size_t palette(std::uint32_t number);
  /// The largest error of straight lines between every so many entries, in what the strip is told.
  double errorOf(const BoardPalette& colours, std::size_t segments);
  static constexpr double kPaletteError = 1.0 / 255;

  void putInput(int node, Blob::Bytes& to);
  static constexpr double kRowTolerance = 1e-5;
  static double eachOf(const std::vector<float>& values);
  /// Values at equal steps, if they are.
  static bool putRow(const std::vector<float>& values, Blob::Bytes& to);

  std::size_t map();
  /// How far it is from each cell's only pixel to the next one's, if it is the same everywhere.
  std::optional<int> rowStep() const;

  /// Constants, what is done once a frame, and which values each cell has.
  Blob::Bytes headOfBody();

  std::optional<WrittenProgram> finish();

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

}  // namespace chispa::board
