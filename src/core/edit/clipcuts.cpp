// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edit/clipcuts.h"

#include <cmath>

namespace chispa {
namespace {

Micros ownTime(const Clip& clip, Micros time) {
  return Micros(static_cast<std::int64_t>(std::llround(static_cast<double>(time.count()) * clip.speed)));
}

/// Length that effects with an end run over, in their own time, as it is now.
Micros wholeOf(const Clip& clip) {
  return clip.whole.count() > 0 ? clip.whole : clip.contentOffset + ownTime(clip, clip.length);
}

}  // namespace

void cutBefore(Clip& clip, Micros at) {
  clip.whole = wholeOf(clip);
  clip.contentOffset += ownTime(clip, at - clip.start);
  clip.length -= at - clip.start;
  clip.start = at;
  clip.fadeIn = Micros(0);
}

void cutBehind(Clip& clip, Micros at) {
  clip.whole = wholeOf(clip);
  clip.length = at - clip.start;
  clip.fadeOut = Micros(0);
}

}  // namespace chispa
