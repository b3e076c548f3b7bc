// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <algorithm>
#include <cstdlib>

#include "core/base/time.h"

namespace chispa {

/// What a player is to do so that its score is where a time code is.
struct CodeStep {
  enum class Kind { Nothing, Play, Seek, Pause };
  Kind kind = Kind::Nothing;
  /// Of Play and Seek: a place in the score. Of Pause: the place that it is to show while it stands.
  Micros at{0};

  bool operator==(const CodeStep&) const = default;
};

/// Farther from the time code than this, a score that plays jumps to it: below it, what is seen would suffer
/// more from the jump than from the distance.
inline constexpr Micros kCodeSlack{60'000};

/// The step of a player of which the score is `length` long and now at `position`, for a time code that is at
/// `code` of the score, and runs or stands. Before its beginning and after its end the score stands there.
inline CodeStep followCode(Micros code, bool runs, bool isPlaying, Micros position, Micros length) {
  const Micros at = std::clamp(code, Micros(0), length);
  if (!runs || at != code || at == length)
    return isPlaying || at != position ? CodeStep{CodeStep::Kind::Pause, at} : CodeStep{};
  if (!isPlaying) return {CodeStep::Kind::Play, at};
  if (std::abs((position - at).count()) > kCodeSlack.count()) return {CodeStep::Kind::Seek, at};
  return {};
}

}  // namespace chispa
