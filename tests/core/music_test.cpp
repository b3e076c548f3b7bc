// SPDX-License-Identifier: GPL-3.0-or-later
#include <gtest/gtest.h>

#include <cmath>
#include <fstream>
#include <random>

#include "core/music/analysis.h"
#include "temporary.h"
#include "waltz/tune.h"

namespace chispa {
namespace {

/// Clicks on every beat, lower and louder on the first of each bar, in noise.
AudioClip clicks(double bpm, int beatsPerBar, double length_s, double noise) {
  AudioClip clip;
  const auto frames = static_cast<std::size_t>(length_s * AudioClip::kRate);
  clip.samples.resize(frames * 2);
  std::mt19937 random(1);
  std::normal_distribution<float> hiss(0, static_cast<float>(noise));
  for (auto& sample : clip.samples) sample = hiss(random);
  int index = 0;
  for (double t = 0.3; t < length_s - 0.3; t += 60 / bpm, ++index) {
    const bool down = index % beatsPerBar == 0;
    const double hz = down ? 110 : 900;
    const auto at = static_cast<std::size_t>(t * AudioClip::kRate);
    for (std::size_t i = 0; i < 4000 && at + i < frames; ++i) {
      const double s = static_cast<double>(i) / AudioClip::kRate;
      const auto v = static_cast<float>((down ? 0.7 : 0.4) * std::sin(2 * 3.14159 * hz * s) * std::exp(-s * 30) * (1 - static_cast<double>(i) / 4000));
      clip.samples[2 * (at + i)] += v;
      clip.samples[2 * (at + i) + 1] += v;
    }
  }
  return clip;
}

/// F-measure of instants against a regular grid, within ±70 ms (MIREX).
double fMeasure(const std::vector<Micros>& found, double first_s, double step_s, int count) {
  int hits = 0;
  for (int i = 0; i < count; ++i) {
    const Micros wanted = micros(first_s + i * step_s);
    for (const Micros at : found)
      if (std::chrono::abs(at - wanted) <= Micros(70'000)) {
        ++hits;
        break;
      }
  }
  return 2.0 * hits / (count + static_cast<double>(found.size()));
}

class SteadyClicks : public testing::TestWithParam<std::tuple<double, int>> {};

TEST_P(SteadyClicks, TempoBeatsAndBarsAreFound) {
  const auto [bpm, perBar] = GetParam();
  const FoundBeats found = findBeats(analyseSpectrum(clicks(bpm, perBar, 30, 0.005)));
  EXPECT_NEAR(found.tempo_bpm, bpm, bpm * 0.01);
  EXPECT_EQ(found.beatsPerBar, perBar);
  const int beats = static_cast<int>((30 - 0.6) * bpm / 60) + 1;
  EXPECT_GE(fMeasure(found.beats, 0.3, 60 / bpm, beats), 0.95);
  EXPECT_GE(fMeasure(found.bars, 0.3, perBar * 60 / bpm, (beats + perBar - 1) / perBar), 0.9);
}

INSTANTIATE_TEST_SUITE_P(Tempi, SteadyClicks, testing::Combine(testing::Values(90.0, 112.0, 132.0, 150.0), testing::Values(3, 4)));

TEST(Waltz, ItsBeatsAndDownBeatsAreFound) {
  const auto analysed = analyseAudio(std::string(CHISPA_SOURCE_DIR) + "/demo/slow-round.ogg");
  ASSERT_TRUE(analysed);
  const FoundBeats& found = (*analysed)->beats;
  EXPECT_NEAR(found.tempo_bpm, 132, 0.5);
  EXPECT_EQ(found.beatsPerBar, 3);
  EXPECT_GE(fMeasure(found.beats, demo::kLeadIn_s, demo::kBeat_s, demo::kBars * 3), 0.95);
  EXPECT_GE(fMeasure(found.bars, demo::kLeadIn_s, demo::kBeat_s * 3, demo::kBars), 0.95);
  const double length = seconds((*analysed)->clip->length());
  EXPECT_TRUE(length >= 60 && length <= 90);
}

TEST(Music, SilenceHasNoBeats) {
  AudioClip clip;
  clip.samples.resize(48'000 * 2 * 5);
  EXPECT_TRUE(findBeats(analyseSpectrum(clip)).beats.empty());
}

TEST(Music, OnsetsAreFoundWhereSomethingBegins) {
  const auto onsets = findOnsets(analyseSpectrum(clicks(100, 4, 10, 0.002)).onset);
  std::string found;
  for (const Micros at : onsets) found += std::to_string(seconds(at)) + " ";
  EXPECT_GE(fMeasure(onsets, 0.3, 0.6, 16), 0.9) << found;
}

TEST(Audio, MissingAndDamagedFilesAreFailuresWithAPlace) {
  const test::TemporaryFolder folder;
  const auto missing = decodeAudio(folder.path() / "none.ogg");
  ASSERT_FALSE(missing);
  EXPECT_NE(missing.failure().where.find("none.ogg"), std::string::npos);
  std::ofstream(folder.path() / "bad.ogg") << "OggS this is no music at all";
  EXPECT_FALSE(decodeAudio(folder.path() / "bad.ogg"));
  std::ofstream(folder.path() / "empty.wav");
  EXPECT_FALSE(decodeAudio(folder.path() / "empty.wav"));
}

TEST(WaveformPeaks, AreTheExtremesAtEveryZoom) {
  AudioClip clip;
  clip.samples.resize(48'000 * 2 * 4);
  clip.samples[2 * 100'000] = clip.samples[2 * 100'000 + 1] = 0.9f;
  clip.samples[2 * 20'000] = clip.samples[2 * 20'000 + 1] = -0.8f;
  const WaveformPeaks peaks(clip);
  EXPECT_GT(peaks.levels(), 3u);
  EXPECT_FLOAT_EQ(peaks.between(Micros(0), Micros(4'000'000)).high, 0.9f);
  EXPECT_FLOAT_EQ(peaks.between(Micros(0), Micros(1'000'000)).low, -0.8f);
  EXPECT_FLOAT_EQ(peaks.between(Micros(2'070'000), Micros(2'090'000)).high, 0.9f);
  EXPECT_FLOAT_EQ(peaks.between(Micros(3'000'000), Micros(3'010'000)).high, 0);
}

TEST(MusicGrid, CountsBeatsAndBarsThroughTempoChanges) {
  const MusicGrid grid({Micros(0), Micros(1'000'000), Micros(1'500'000), Micros(2'000'000)}, {Micros(0), Micros(1'500'000)});
  EXPECT_DOUBLE_EQ(grid.beatAt(Micros(500'000)), 0.5);
  EXPECT_DOUBLE_EQ(grid.beatAt(Micros(1'250'000)), 1.5);
  EXPECT_DOUBLE_EQ(grid.beatAt(Micros(2'500'000)), 4) << "behind the last mark the last gap goes on";
  EXPECT_NEAR(grid.beatInBarAt(Micros(1'750'000)), 0.5, 1e-9);
}

}  // namespace
}  // namespace chispa
