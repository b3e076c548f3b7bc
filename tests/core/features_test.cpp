// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/music/features.h"

#include <gtest/gtest.h>

namespace chispa {
namespace {

TEST(MusicFeatures, CurvesAreReadBetweenTheirValuesAndAreNothingOutside) {
  const std::vector<float> curve = {0, 1, 0.5f};
  EXPECT_FLOAT_EQ(MusicFeatures::at(curve, Micros(5'000)), 0.5f);
  EXPECT_FLOAT_EQ(MusicFeatures::at(curve, Micros(10'000)), 1);
  EXPECT_FLOAT_EQ(MusicFeatures::at(curve, Micros(15'000)), 0.75f);
  EXPECT_EQ(MusicFeatures::at(curve, Micros(-1)), 0);
  EXPECT_EQ(MusicFeatures::at(curve, Micros(30'000)), 0);
  EXPECT_EQ(MusicFeatures::at({}, Micros(0)), 0);
}

TEST(MusicFeatures, AnOnsetFadesWithinHalfASecond) {
  MusicFeatures features;
  features.onsets[1] = {Micros(1'000'000), Micros(1'200'000)};
  EXPECT_EQ(features.onsetAt(1, Micros(999'999)), 0);
  EXPECT_FLOAT_EQ(features.onsetAt(1, Micros(1'000'000)), 1);
  EXPECT_LT(features.onsetAt(1, Micros(1'150'000)), features.onsetAt(1, Micros(1'050'000)));
  EXPECT_FLOAT_EQ(features.onsetAt(1, Micros(1'200'000)), 1) << "the next one begins anew";
  EXPECT_EQ(features.onsetAt(1, Micros(1'700'000)), 0);
  EXPECT_EQ(features.onsetAt(0, Micros(1'000'000)), 0) << "low has none";
}

/// Beats that slow down, three a bar.
MusicGrid slowing() {
  std::vector<Micros> beats, bars;
  Micros at{1'000'000};
  for (int i = 0; i < 30; ++i) {
    if (i % 3 == 0) bars.push_back(at);
    beats.push_back(at);
    at += Micros(400'000 + 10'000 * i);
  }
  return {beats, bars};
}

TEST(MusicGrid, BeatsAndTheirInstantsAreEachOthersInverse) {
  const MusicGrid grid = slowing();
  for (double beat = -3; beat < 35; beat += 0.37)
    EXPECT_NEAR(grid.beatAt(grid.beatStart(beat)), beat, 1e-4) << beat;
  for (double bar = -1; bar < 11; bar += 0.21) EXPECT_NEAR(grid.barAt(grid.barStart(bar)), bar, 1e-4) << bar;
}

TEST(MusicGrid, GoesOnBeyondBothEndsAsItBeginsAndEnds) {
  const MusicGrid grid = slowing();
  EXPECT_EQ(grid.beatStart(-1), Micros(600'000));
  EXPECT_GT(grid.beatStart(40), grid.beatStart(39));
  EXPECT_NEAR(grid.beatAt(Micros(0)), -2.5, 1e-9);
}

TEST(MusicGrid, TimeNeverRunsBackwards) {
  const MusicGrid grid = slowing();
  double last = grid.beatAt(Micros(0));
  for (Micros t{0}; t < Micros(20'000'000); t += Micros(37'000)) {
    EXPECT_GE(grid.beatAt(t), last);
    last = grid.beatAt(t);
    const double inBar = grid.beatInBarAt(t);
    const bool isWithin = t > Micros(1'000'000) && t < Micros(14'000'000);
    EXPECT_TRUE(!isWithin || (inBar >= -1e-6 && inBar < 3.001)) << inBar;
  }
}

TEST(MusicGrid, ABeatLastsUntilTheNext) {
  const MusicGrid grid = slowing();
  EXPECT_EQ(grid.beatLength(Micros(1'000'000)), Micros(400'000));
  EXPECT_EQ(grid.beatLength(Micros(1'399'000)), Micros(400'000));
  EXPECT_EQ(grid.beatLength(Micros(1'401'000)), Micros(410'000));
}

TEST(MusicGrid, WithoutMarksHasTwoBeatsASecondAndThreeABar) {
  EXPECT_DOUBLE_EQ(MusicGrid({}, {}).beatAt(Micros(2'000'000)), 4);
  EXPECT_DOUBLE_EQ(MusicGrid({Micros(5)}, {}).barAt(Micros(3'000'000)), 2);
}

}  // namespace
}  // namespace chispa
