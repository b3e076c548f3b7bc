// SPDX-License-Identifier: GPL-3.0-or-later
// Beats and bars decided from what is heard of them: chances that are made up here.
#include "core/music/barpointer.h"

#include <cmath>
#include <random>

#include <gtest/gtest.h>

namespace chispa {
namespace {

/// Chances for beats at the given seconds, the ones with true as first of a bar.
BeatChances chancesOf(const std::vector<std::pair<double, bool>>& beats, double length_s,
                      float plain = 0.9f) {
  BeatChances chances;
  const auto count = static_cast<std::size_t>(length_s * RhythmInput::kRate);
  chances.beat.assign(count, 0.02f);
  chances.first.assign(count, 0.01f);
  for (const auto& [at, isFirst] : beats)
    for (int off = -1; off <= 1; ++off) {
      const auto frame = static_cast<std::size_t>(std::lround(at * RhythmInput::kRate) + off);
      if (frame >= count) continue;
      chances.beat[frame] = off == 0 ? plain : 0.4f * plain;
      if (isFirst) chances.first[frame] = chances.beat[frame] * 0.9f;
    }
  return chances;
}

/// Beats at a tempo, `perBar` in a bar.
std::vector<std::pair<double, bool>> regularBeats(double bpm, int perBar, double from, double to) {
  std::vector<std::pair<double, bool>> beats;
  for (int n = 0; from + n * 60 / bpm < to; ++n) beats.push_back({from + n * 60 / bpm, n % perBar == 0});
  return beats;
}

/// The share of `beats` that are placed within a frame of where they belong, and begin bars if they should.
double placedRight(const std::vector<PlacedBeat>& placed, const std::vector<std::pair<double, bool>>& beats) {
  double right = 0;
  for (const auto& [at, isFirst] : beats)
    for (const PlacedBeat& beat : placed)
      if (std::abs(static_cast<double>(beat.frame) - at * RhythmInput::kRate) <= 1.01 &&
          (beat.place == 0) == isFirst) {
        ++right;
        break;
      }
  return right / static_cast<double>(std::max(placed.size(), beats.size()));
}

class Metres : public testing::TestWithParam<std::tuple<int, double>> {};

TEST_P(Metres, AreFoundWithTheirTempo) {
  const auto [perBar, bpm] = GetParam();
  const auto beats = regularBeats(bpm, perBar, 0.7, 40);
  const auto placed = placeBeats(chancesOf(beats, 41));
  EXPECT_GE(placedRight(placed, beats), 0.95);
  EXPECT_EQ(placed[placed.size() / 2].metre, perBar);
}

INSTANTIATE_TEST_SUITE_P(All, Metres,
                         testing::Combine(testing::Values(2, 3, 4, 5, 6, 7),
                                          testing::Values(52.0, 97.0, 133.0, 211.0)));

TEST(BarPointer, LeapsWithTheTempo) {
  auto beats = regularBeats(90, 4, 0.5, 20);
  const double next = beats.back().first + 0.6;
  for (const auto& beat : regularBeats(135, 4, next, 40)) beats.push_back(beat);
  EXPECT_GE(placedRight(placeBeats(chancesOf(beats, 41)), beats), 0.9);
}

TEST(BarPointer, WaitsWhereTheMusicDoes) {
  auto beats = regularBeats(100, 4, 0.5, 19);
  // Four seconds without a beat, and on at another place in time.
  for (const auto& beat : regularBeats(100, 4, beats.back().first + 4.13, 45)) beats.push_back(beat);
  const auto placed = placeBeats(chancesOf(beats, 46));
  EXPECT_GE(placedRight(placed, beats), 0.95);
  for (const PlacedBeat& beat : placed) {
    const double at = static_cast<double>(beat.frame) / RhythmInput::kRate;
    EXPECT_FALSE(at > 19.5 && at < 22) << "no beat is made up in a rest: " << at;
  }
}

TEST(BarPointer, FollowsBarsOfOtherLengths) {
  std::vector<std::pair<double, bool>> beats;
  double at = 0.5;
  for (const int length : {4, 4, 4, 5, 4, 4, 4, 2, 4, 4, 4, 6, 4, 4, 4, 4})
    for (int n = 0; n < length; ++n, at += 0.5) beats.push_back({at, n == 0});
  EXPECT_GE(placedRight(placeBeats(chancesOf(beats, at + 1)), beats), 0.95);
}

TEST(BarPointer, CountsOnWhereBeatsAreNotPlayed) {
  const auto beats = regularBeats(120, 4, 0.5, 30);
  auto played = beats;
  std::mt19937 random(3);
  std::erase_if(played, [&](const auto&) { return random() % 4 == 0; });
  EXPECT_GE(placedRight(placeBeats(chancesOf(played, 31)), beats), 0.93);
}

TEST(BarPointer, ALongPieceIsDecidedInPieces) {
  // Longer than what is held of the way back.
  const auto beats = regularBeats(118, 4, 0.5, 1'300);
  EXPECT_GE(placedRight(placeBeats(chancesOf(beats, 1'302)), beats), 0.995);
}

TEST(BarPointer, OfNothingIsNothing) {
  EXPECT_TRUE(placeBeats({}).empty());
  BeatChances silence;
  silence.beat.assign(500, 0.005f);
  silence.first.assign(500, 0.005f);
  EXPECT_LE(placeBeats(silence).size(), 1u);
}

}  // namespace
}  // namespace chispa
