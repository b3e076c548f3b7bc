// SPDX-License-Identifier: GPL-3.0-or-later
#include "engine/liveclock.h"

#include <algorithm>
#include <cmath>

namespace chispa::engine {
namespace {

/// More than this beside the clock is a jump of the score; less is its sound being followed.
constexpr Micros kClockJump{200'000};

}  // namespace

bool LiveClock::goesOn(const TransportState& at, Micros position, MonoTime now) const noexcept {
  if (!followsScore_ || at.score != score_ || position < position_) return false;
  const auto passed = std::chrono::duration_cast<Micros>(now - now_);
  const Micros expected(static_cast<std::int64_t>(static_cast<double>(passed.count()) * at.rate));
  return std::chrono::abs(position - position_ - expected) <= kClockJump;
}

LiveInstant LiveClock::tick(const TransportState& at, MonoTime now, const CompiledScore* score,
                            const Tempo& tempo) noexcept {
  const bool plays = score && at.playing && now >= at.since;
  const Micros position = at.positionAt(now);
  if (plays && goesOn(at, position, now)) {
    t_ = position + offset_;
  } else {
    if (course_ > 0) t_ += std::max(Micros(0), std::chrono::duration_cast<Micros>(now - now_));
    if (plays || followsScore_ || course_ == 0) ++course_;
    offset_ = plays ? t_ - position : Micros(0);
  }
  followsScore_ = plays;
  score_ = at.score;
  position_ = position;
  now_ = now;
  if (plays)
    return {t_, score->grid.beatAt(position), score->grid.barAt(position), score->grid.beatInBarAt(position),
            course_};
  const double beat = tempo.beatAt(t_);
  const double bar = beat / LiveState::kBeatsPerBar;
  return {t_, beat, bar, (bar - std::floor(bar)) * LiveState::kBeatsPerBar, course_};
}

}  // namespace chispa::engine
