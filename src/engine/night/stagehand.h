// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <optional>

#include "core/base/id.h"
#include "core/base/time.h"

namespace chispa::engine {

/// What a performance asks for: the window's stage and a player without a window both can do it. One thread.
class Stagehand {
 public:
  virtual ~Stagehand() = default;

  /// How a score is to be played.
  struct ScorePlay {
    ScoreId score;
    Micros from{0};
    /// What was lit before fades away over this time.
    Micros fade{0};
    /// It begins again at its end, until something else plays.
    bool isLooped = false;
    /// Times as fast; sound is heard at 1 only.
    double rate = 1;
  };
  virtual void playScore(const ScorePlay& play) = 0;
  /// No score plays any more; its light fades away.
  virtual void stopScore(Micros fade) = 0;
  /// Where in the score it is, at its length when it has come to its end; none if no score was asked for.
  virtual std::optional<Micros> scorePosition() = 0;
  /// This score (none: no score) will play next, and what was lit then fades away over `fade`: its sound may
  /// be made ready, and join that of the score that plays without a gap.
  virtual void prepare(ScoreId score, Micros fade) = 0;
  virtual void lightLook(LookId look) = 0;
  virtual void endLook(LookId look) = 0;
  virtual void switchLight(bool on) = 0;
};

}  // namespace chispa::engine
