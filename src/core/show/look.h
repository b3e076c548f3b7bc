// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <string>
#include <vector>

#include "core/show/score.h"

namespace chispa {

/// What a look does when its pad is pressed.
enum class PadMode {
  Hold,      ///< lit while the pad is held
  Toggle,    ///< a press lights it, the next one ends it
  Flash,     ///< at once while the pad is held, then it fades out
  OnlyThis,  ///< a press lights it and ends all others
};

/// What follows when a look with steps has gone through its rounds.
enum class LookEnd {
  Stay,  ///< its last step stays lit
  GoOn,  ///< another look begins
  Back,  ///< it fades out, to what was lit before
};

/// A state of a look: light of some zones, without an end of its own.
struct LookStep {
  /// How long it stays once it is reached, and how long it takes to pass into it.
  Micros hold{1'000'000};
  Micros fade{0};
  /// Clips that begin when the look does and never end. `length` is the round of effects that have a
  /// beginning and an end, and of curves; `start` and the clips' own fades count for nothing.
  std::vector<std::shared_ptr<const Clip>> layers;
};

bool operator==(const LookStep& a, const LookStep& b);

/// Light of some zones that is played by hand and lasts until it is ended.
struct Look {
  LookId id;
  std::string name;
  /// 0–1; the look's own fader starts here.
  double level = 1;
  Micros fadeIn{200'000};
  Micros fadeOut{400'000};
  FadeShape fadeShape = FadeShape::Even;
  PadMode mode = PadMode::Toggle;
  /// The key that plays it: a digit or a letter, or none.
  std::string key;
  /// At least one; a look without steps is one step that stays.
  std::vector<LookStep> steps = {LookStep{}};
  /// Whether the first step fades in too when a round begins again.
  bool firstFades = true;
  /// Rounds through the steps; 0 for ever.
  int rounds = 0;
  LookEnd end = LookEnd::Stay;
  /// For LookEnd::GoOn.
  LookId next;

  bool operator==(const Look&) const = default;
  bool hasSteps() const { return steps.size() > 1; }
};

/// How long one round through the steps takes; 0 for a look that has none.
Micros roundOf(const Look& look);

/// The zones that `look` lights, each once, in the order of its layers.
std::vector<ZoneId> zonesOf(const Look& look);

/// The layer `id` of `look`, or null.
const Clip* findLayer(const Look& look, ClipId id);

}  // namespace chispa
