// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/music/spectrogram.h"

#include <cmath>
#include <numbers>

#include <gtest/gtest.h>

#include "core/music/spectrum.h"

namespace chispa {
namespace {

/// Two seconds of silence, then two of a tone.
AudioBuffer tone(double hz) {
  AudioBuffer clip;
  for (int i = 0; i < 4 * AudioClip::kRate; ++i) {
    const auto value =
        i < 2 * AudioClip::kRate
            ? 0.f
            : static_cast<float>(0.5 * std::sin(2 * std::numbers::pi * hz * i / AudioClip::kRate));
    clip.samples.insert(clip.samples.end(), 2, value);
  }
  return clip;
}

class Tones : public testing::TestWithParam<double> {};

TEST_P(Tones, AreLoudestInTheRowOfTheirPitchAndOnlyWhileTheySound) {
  const Spectrogram picture = analyseSpectrum(tone(GetParam())).picture;
  EXPECT_NEAR(static_cast<double>(picture.columns()), 4.0 * MusicFeatures::kRate, 2);
  int loudest = 0;
  for (int row = 0; row < Spectrogram::kRows; ++row)
    if (picture.loudest(row, Micros(2'500'000), Micros(3'500'000)) >
        picture.loudest(loudest, Micros(2'500'000), Micros(3'500'000)))
      loudest = row;
  EXPECT_NEAR(loudest + 0.5, Spectrogram::rowOf(GetParam()), 1.6);
  EXPECT_GT(picture.loudest(loudest, Micros(2'500'000), Micros(3'500'000)), 200);
  EXPECT_EQ(picture.loudest(loudest, Micros(500'000), Micros(1'500'000)), 0) << "before it begins";
}

INSTANTIATE_TEST_SUITE_P(Pitches, Tones, testing::Values(110.0, 440.0, 1'760.0, 7'040.0));

TEST(Spectrogram, OutsideThePieceItIsSilent) {
  const Spectrogram picture = analyseSpectrum(tone(440)).picture;
  EXPECT_EQ(picture.loudest(10, Micros(-2'000'000), Micros(-1'000'000)), 0);
  EXPECT_EQ(picture.loudest(10, Micros(9'000'000), Micros(10'000'000)), 0);
  EXPECT_EQ(Spectrogram().loudest(0, Micros(0), Micros(1'000'000)), 0);
}

TEST(Spectrogram, RowsRiseWithThePitch) {
  EXPECT_EQ(Spectrogram::rowOf(1), 0);
  EXPECT_EQ(Spectrogram::rowOf(24'000), Spectrogram::kRows);
  for (double hz = 50, last = 0; hz < 16'000; hz *= 1.1) {
    EXPECT_GT(Spectrogram::rowOf(hz), last) << hz;
    last = Spectrogram::rowOf(hz);
  }
  EXPECT_NEAR(Spectrogram::rowOf(8'000) - Spectrogram::rowOf(4'000),
              Spectrogram::rowOf(4'000) - Spectrogram::rowOf(2'000), 0.3)
      << "an octave is an octave";
}

}  // namespace
}  // namespace chispa
