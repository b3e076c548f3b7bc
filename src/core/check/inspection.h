// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <set>
#include <string>
#include <unordered_set>
#include <vector>

#include "core/check/problems.h"
#include "core/wire/patch.h"
#include "core/wire/powernet.h"
#include "core/wire/sizing.h"

namespace chispa {

/// Goes through a show part by part and writes down what it finds; findProblems() calls all of it in order.
/// What is wrong on the wire stands in wireproblems.cpp, with what is played by hand and at night in
/// liveproblems.cpp.
class Inspection {
 public:
  explicit Inspection(const Show& show);

  /// What was found, the gravest first.
  std::vector<Problem> take() &&;

  void inspectUnread();
  void inspectLooks();
  void inspectBindings();
  void inspectDesks();
  void inspectSetLists();
  void inspectRules();
  void inspectFixtures();
  void inspectUnwired();
  void inspectPower();
  void inspectZones();
  void inspectControllers();
  void inspectAddresses();
  void inspectScores(const std::function<bool(const std::string&)>& fileExists);

 private:
  /// True if what a line plays is not there any more.
  bool isGone(const SetListItem& line) const;
  static const char* lineWithout(PieceKind kind);
  static const char* ruleWithout(PieceKind kind);
  bool holdsItself(SetListId id, SetListId wanted, std::set<SetListId> seen) const;
  void add(Severity severity, Sentence what, Sentence where, Sentence cure, ProblemPlace place,
           Mending mending = Mending::None);
  const Controller& controllerOf(int index) const;
  void inspectUniverses(const Patch& patch);

  /// Universes that a pin has left out: the controller would have to be set up so.
  void inspectGaps(const Patch& patch);

  /// Beads that a pin has put onto channels of others.
  void inspectOverlaps(const Patch& patch);
  void inspectPorts(const Patch& patch);
  static Sentence portText(const Controller& controller, int port);
  void inspectCuts(const Fixture& fixture);
  void inspectChain(const PowerChain& chain, const ChainState& state);

  /// Load, fuse and wire are one choice: the wire must carry what the fuse lets through.
  void inspectWire(const PowerFeed& feed, double amps, const Sentence& where, const PortPlace& place);
  static std::string shortNumber(double value);
  void inspectRun(const Controller& controller, int port);
  void inspectClip(const Score& score, const Clip& clip);

  const Show& show_;
  std::unordered_set<ZoneId> zones_;
  std::set<std::string> padKeys_;
  std::vector<Problem> problems_;
};

}  // namespace chispa
