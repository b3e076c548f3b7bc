// SPDX-License-Identifier: GPL-3.0-or-later
// The same beats counted other ways, from a place on.
#include "core/music/beatlevel.h"

#include <gtest/gtest.h>

namespace chispa {
namespace {

/// `count` beats half a second apart, from `first` seconds on; a bar begins on every `perBar`-th from
/// `upBeats` on.
BeatMarks evenMarks(int count, int perBar = 4, double first = 1, int upBeats = 0) {
  BeatMarks marks;
  for (int n = 0; n < count; ++n) {
    marks.beats.push_back(micros(first + 0.5 * n));
    if (n >= upBeats && (n - upBeats) % perBar == 0) marks.bars.push_back(marks.beats.back());
  }
  return marks;
}

std::vector<double> marksInSeconds(const std::vector<Micros>& marks) {
  std::vector<double> out;
  for (const Micros at : marks) out.push_back(seconds(at));
  return out;
}

/// Every bar begins on a beat, all is in order and nothing stands twice.
void expectSound(const BeatMarks& marks) {
  for (const auto* lane : {&marks.beats, &marks.bars}) {
    EXPECT_TRUE(std::is_sorted(lane->begin(), lane->end()));
    EXPECT_EQ(std::adjacent_find(lane->begin(), lane->end()), lane->end());
  }
  for (const Micros bar : marks.bars)
    EXPECT_TRUE(std::binary_search(marks.beats.begin(), marks.beats.end(), bar)) << seconds(bar);
}

TEST(BeatLevels, WhateverIsAskedForBarsBeginOnBeats) {
  for (const BeatLevel level :
       {BeatLevel::Twice, BeatLevel::Half, BeatLevel::HalfBeatLater, BeatLevel::ThirdLater,
        BeatLevel::ThirdEarlier, BeatLevel::ThreeInABar, BeatLevel::FourInABar})
    for (const int upBeats : {0, 1, 3})
      for (const double from : {0.0, 3.2, 5.0, 99.0})
        expectSound(counted(evenMarks(23, 4, 1, upBeats), level, micros(from)));
}

TEST(BeatLevels, TwiceAndHalfAreEachOthersInverse) {
  const BeatMarks marks = evenMarks(17);
  const BeatMarks twice = counted(marks, BeatLevel::Twice);
  EXPECT_EQ(twice.beats.size(), 33u);
  EXPECT_EQ(beatsPerBar(twice), 4) << "bars keep their count of beats";
  EXPECT_EQ(counted(twice, BeatLevel::Half), marks);
}

TEST(BeatLevels, HalfKeepsTheBeatsOnWhichBarsBegin) {
  const BeatMarks half = counted(evenMarks(20, 4, 1, 3), BeatLevel::Half);
  EXPECT_EQ(half.bars.front(), micros(2.5));
  EXPECT_TRUE(std::binary_search(half.beats.begin(), half.beats.end(), micros(2.5)));
  EXPECT_EQ(beatsPerBar(half), 4);
}

TEST(BeatLevels, WhatLiesBeforeStays) {
  const BeatMarks marks = evenMarks(16);
  const BeatMarks later = counted(marks, BeatLevel::HalfBeatLater, micros(5.1));
  EXPECT_EQ(marksInSeconds({later.beats.begin() + 7, later.beats.begin() + 10}),
            (std::vector{4.5, 5.25, 5.75}));
  EXPECT_EQ(marksInSeconds(later.bars), (std::vector{1.0, 3.0, 5.25, 7.25}));
  const BeatMarks third = counted(marks, BeatLevel::ThirdEarlier, micros(5.0));
  EXPECT_NEAR(seconds(third.beats[8]), 5.0 - 0.5 / 3, 1e-5);
  EXPECT_EQ(third.beats[7], marks.beats[7]);
}

TEST(BeatLevels, ThreeInABarBeginsAtTheBeatHere) {
  const BeatMarks three = counted(evenMarks(17), BeatLevel::ThreeInABar, micros(6.02));
  EXPECT_EQ(marksInSeconds(three.bars), (std::vector{1.0, 3.0, 5.0, 6.0, 7.5, 9.0}));
}

TEST(BeatLevels, OfNothingIsNothing) {
  EXPECT_EQ(counted({}, BeatLevel::Twice), BeatMarks{});
  EXPECT_EQ(counted(evenMarks(1), BeatLevel::Half), evenMarks(1));
  EXPECT_EQ(beatsPerBar(BeatMarks{}), 4);
}

}  // namespace
}  // namespace chispa
