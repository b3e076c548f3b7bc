// SPDX-License-Identifier: GPL-3.0-or-later
// What is heard as it is made: how far behind, and whether beats are counted where they fall.
#include "core/music/livehearing.h"

#include <cmath>

#include "madeupmusic.h"
#include <gtest/gtest.h>

namespace chispa {
namespace {

/// Lets the hearing hear a clip in blocks of `block` frames; `after(seconds)` is called behind each.
template <class F>
void hearAll(LiveHearing& hearing, const AudioClip& clip, std::size_t block, F after) {
  std::vector<float> both(block * AudioClip::kChannels), mono(block);
  for (std::size_t first = 0; first + block <= clip.frames(); first += block) {
    clip.read(static_cast<std::ptrdiff_t>(first), both);
    for (std::size_t i = 0; i < block; ++i) mono[i] = 0.5f * (both[2 * i] + both[2 * i + 1]);
    hearing.hear(mono);
    after(static_cast<double>(first + block) / AudioClip::kRate);
  }
}

AudioBuffer silentClip(double length_s) {
  AudioBuffer clip;
  clip.samples.assign(static_cast<std::size_t>(length_s * AudioClip::kRate) * 2, 0.f);
  return clip;
}

TEST(LiveHearing, HearsAStrokeWithinFiftyMilliseconds) {
  AudioBuffer clip = silentClip(4);
  for (const double at : {1.0, 2.0, 3.0})
    for (std::size_t i = 0; i < 4'800; ++i) {
      const double t = static_cast<double>(i) / AudioClip::kRate;
      const auto sound = static_cast<float>(0.5 * std::sin(2 * 3.14159265 * 80 * t) * std::exp(-20 * t));
      const std::size_t frame = static_cast<std::size_t>(at * AudioClip::kRate) + i;
      clip.samples[2 * frame] += sound, clip.samples[2 * frame + 1] += sound;
    }
  LiveHearing hearing;
  std::vector<double> heardAt, levelAt;
  std::size_t onsets = 0;
  float before = 0;
  hearAll(hearing, clip, 240, [&](double now_s) {
    const MusicFeatures& features = hearing.now().features;
    if (features.onsets[0].size() > onsets) heardAt.push_back(now_s);
    onsets = features.onsets[0].size();
    if (features.level.back() > 0.5f && before <= 0.5f) levelAt.push_back(now_s);
    before = features.level.back();
  });
  ASSERT_EQ(heardAt.size(), 3u);
  ASSERT_GE(levelAt.size(), 3u);
  for (std::size_t n = 0; n < 3; ++n) {
    EXPECT_LE(heardAt[n] - (1.0 + static_cast<double>(n)), 0.05);
    EXPECT_GE(heardAt[n] - (1.0 + static_cast<double>(n)), 0.0);
  }
}

TEST(LiveHearing, CountsTheBeatsOfAPieceAsTheyFall) {
  for (const double bpm : {92.0, 124.0}) {
    const test::MadeUpMusic music =
        test::Composer({.length_s = 30, .tempo_bpm = [bpm](double) { return bpm; }, .seed = 4}).compose();
    LiveHearing hearing;
    double worst = 0, sum = 0;
    int count = 0;
    std::size_t next = 0;
    hearAll(hearing, music.clip, 480, [&](double now_s) {
      while (next < music.beats_s.size() && music.beats_s[next] < now_s - 0.01) ++next;
      if (next == music.beats_s.size() || music.beats_s[next] > now_s || now_s < 12) return;
      // A beat falls now: the count must be whole here.
      ASSERT_GT(hearing.now().beat_s, 0);
      EXPECT_NEAR(60 / hearing.now().beat_s, bpm, 0.04 * bpm);
      const double off_s =
          std::abs(hearing.now().beat - std::round(hearing.now().beat)) * hearing.now().beat_s;
      worst = std::max(worst, off_s);
      sum += off_s;
      ++count;
      ++next;
    });
    EXPECT_GT(count, 20);
    EXPECT_LT(sum / count, 0.05) << bpm;
    EXPECT_LT(worst, 0.12) << bpm;
  }
}

TEST(LiveHearing, SilenceIsDarkAndHasNoBeats) {
  LiveHearing hearing;
  hearAll(hearing, silentClip(8), 512, [&](double) {
    EXPECT_EQ(hearing.now().features.level.back(), 0);
    EXPECT_EQ(hearing.now().loudness, 0);
  });
  EXPECT_EQ(hearing.now().beat_s, 0);
  EXPECT_TRUE(hearing.now().features.onsets[0].empty());
}

TEST(LiveHearing, LoudIsWhatIsLoudHere) {
  // The same piece, once forty decibels quieter: its level comes out alike.
  const test::MadeUpMusic music = test::Composer({.length_s = 14, .seed = 8}).compose();
  AudioBuffer quiet = music.clip;
  for (float& v : quiet.samples) v *= 0.05f;
  const auto meanLevel = [](const AudioClip& clip) {
    LiveHearing hearing;
    double sum = 0;
    int count = 0;
    hearAll(hearing, clip, 480, [&](double now_s) {
      if (now_s < 7) return;
      sum += static_cast<double>(hearing.now().features.level.back());
      ++count;
    });
    return sum / count;
  };
  EXPECT_NEAR(meanLevel(quiet), meanLevel(music.clip), 0.15);
}

/// However the sound card cuts it up, the same is heard.
TEST(LiveHearing, DoesNotDependOnHowTheSoundComes) {
  const test::MadeUpMusic music = test::Composer({.length_s = 6, .seed = 2}).compose();
  const auto levels = [&](std::size_t block) {
    LiveHearing hearing;
    hearAll(hearing, music.clip, block, [](double) {});
    return std::pair(hearing.now().features.level, hearing.now().beat);
  };
  EXPECT_EQ(levels(480), levels(96));
}

}  // namespace
}  // namespace chispa
