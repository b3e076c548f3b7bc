// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include "core/render/compiled.h"
#include "core/render/livestate.h"
#include "engine/transport.h"

namespace chispa::engine {

/// Makes the instants of the live clock: in step with the score while one plays, so that what is played to it
/// can be written into it; else with the machine's clock. It never goes back. Output thread.
class LiveClock {
 public:
  /// The instant of the frame at `now`. `score` is the one that plays, or null; `tempo` counts where none
  /// does.
  LiveInstant tick(const TransportState& at, MonoTime now, const CompiledScore* score,
                   const Tempo& tempo) noexcept;
  /// What is to be taken from a live instant of the present course to get the score's position.
  Micros offset() const { return offset_; }
  bool followsScore() const { return followsScore_; }

 private:
  bool goesOn(const TransportState& at, Micros position, MonoTime now) const noexcept;

  Micros t_{0};
  Micros offset_{0};
  std::uint32_t course_ = 0;
  bool followsScore_ = false;
  ScoreId score_;
  Micros position_{0};
  MonoTime now_{0};
};

}  // namespace chispa::engine
