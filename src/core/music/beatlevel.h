// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <vector>

#include "core/base/time.h"

namespace chispa {

/// Beats in order of time, and those of them that begin bars.
struct BeatMarks {
  std::vector<Micros> beats;
  std::vector<Micros> bars;

  bool operator==(const BeatMarks&) const = default;
};

/// Other ways to count the same music.
enum class BeatLevel { Twice, Half, HalfBeatLater, ThirdLater, ThirdEarlier, ThreeInABar, FourInABar };

/// `marks` counted another way from the beat at or before `from` on; what lies before it stays. Bars have as
/// many beats as before, but where `level` says otherwise. Of half as many beats those stay that begin bars.
BeatMarks counted(const BeatMarks& marks, BeatLevel level, Micros from = Micros(0));

/// How many beats most bars have; 4 if there are none.
int beatsPerBar(const BeatMarks& marks);

}  // namespace chispa
