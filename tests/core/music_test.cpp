// SPDX-License-Identifier: GPL-3.0-or-later
#include <cmath>
#include <cstdlib>
#include <fstream>
#include <numbers>
#include <random>

#include "sound.h"
#include "temporary.h"
#include "waltz/tune.h"
#include "wavefile.h"
#include <gtest/gtest.h>
#include <sys/stat.h>

#include "core/media/audiostore.h"
#include "core/music/analysis.h"
#include "core/music/onsets.h"

namespace chispa {
namespace {

/// Clicks on every beat, lower and louder on the first of each bar, in noise.
AudioBuffer clicks(double bpm, int beatsPerBar, double length_s, double noise) {
  AudioBuffer clip;
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
      const auto v = static_cast<float>((down ? 0.7 : 0.4) * std::sin(2 * 3.14159 * hz * s) *
                                        std::exp(-s * 30) * (1 - static_cast<double>(i) / 4000));
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

FoundBeats beatsOf(const AudioClip& clip) {
  return findBeats(hearBeats(analyseSpectrum(clip), chromagramOf(clip)));
}

class SteadyClicks : public testing::TestWithParam<std::tuple<double, int>> {};

TEST_P(SteadyClicks, TempoBeatsAndBarsAreFound) {
  const auto [bpm, perBar] = GetParam();
  const FoundBeats found = beatsOf(clicks(bpm, perBar, 30, 0.005));
  EXPECT_NEAR(found.tempo_bpm, bpm, bpm * 0.01);
  EXPECT_EQ(found.beatsPerBar, perBar);
  const int beats = static_cast<int>((30 - 0.6) * bpm / 60) + 1;
  EXPECT_GE(fMeasure(found.beats, 0.3, 60 / bpm, beats), 0.95);
  EXPECT_GE(fMeasure(found.bars, 0.3, perBar * 60 / bpm, (beats + perBar - 1) / perBar), 0.9);
}

INSTANTIATE_TEST_SUITE_P(Tempi, SteadyClicks,
                         testing::Combine(testing::Values(90.0, 112.0, 132.0, 150.0), testing::Values(3, 4)));

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
  AudioBuffer clip;
  clip.samples.resize(48'000 * 2 * 5);
  EXPECT_TRUE(beatsOf(clip).beats.empty());
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

/// A WAVE file of `length_s` of a tone.
std::string wave(int rate, int channels, double length_s, double hz) {
  return test::waveFile(rate, channels, length_s,
                        [hz](double t) { return 0.37 * std::sin(2 * std::numbers::pi * hz * t); });
}

/// Joined files change their channels and rate on the way: the pieces are made by FFmpeg's own encoder here,
/// and laid end to end.
TEST(Audio, AFileThatChangesItsFormatOnTheWayIsDecodedWhole) {
  const test::TemporaryFolder folder;
  const auto encode = [&](const char* name, int rate, int channels) {
    const auto from = folder.path() / (std::string(name) + ".wav");
    std::ofstream(from, std::ios::binary) << wave(rate, channels, 2, 440);
    const auto to = folder.path() / (std::string(name) + ".aac");
    EXPECT_EQ(
        std::system(
            ("ffmpeg -loglevel error -y -i " + from.string() + " -c:a aac -f adts " + to.string()).c_str()),
        0);
    std::ifstream in(to, std::ios::binary);
    return std::string(std::istreambuf_iterator<char>(in), {});
  };
  if (std::system("ffmpeg -version > /dev/null 2>&1") != 0) GTEST_SKIP() << "ffmpeg is not installed";
  const std::string stereo = encode("stereo", 44'100, 2), mono = encode("mono", 48'000, 1),
                    six = encode("six", 22'050, 6);
  for (const std::string& joined : {stereo + mono + six, six + stereo, mono + six + mono}) {
    std::ofstream(folder.path() / "joined.aac", std::ios::binary | std::ios::trunc) << joined;
    const auto clip = decodeAudio(folder.path() / "joined.aac");
    ASSERT_TRUE(clip) << clip.failure().text();
    EXPECT_GT(seconds((*clip)->length()), 3.5);
    for (const float sample : test::monoOf(**clip)) ASSERT_LE(std::abs(sample), 1.5f);
  }
}

TEST(Audio, APipeOrADeviceIsRefusedAtOnce) {
  const test::TemporaryFolder folder;
  const auto pipe = folder.path() / "pipe.ogg";
  ASSERT_EQ(::mkfifo(pipe.c_str(), 0600), 0);
  for (const std::filesystem::path& path : {pipe, std::filesystem::path("/dev/zero"), folder.path()}) {
    const auto clip = decodeAudio(path);
    ASSERT_FALSE(clip);
    EXPECT_NE(clip.failure().what.text().find("regular"), std::string::npos) << clip.failure().text();
  }
}

/// A play list names a file; it is not opened through it.
TEST(Audio, APlayListLeadsNowhere) {
  const test::TemporaryFolder folder;
  std::ofstream(folder.path() / "song.wav", std::ios::binary) << wave(48'000, 2, 1, 440);
  std::ofstream(folder.path() / "list.m3u8")
      << "#EXTM3U\n#EXT-X-TARGETDURATION:1\n#EXTINF:1,\nsong.wav\n#EXT-X-ENDLIST\n";
  std::ofstream(folder.path() / "list.ffconcat") << "ffconcat version 1.0\nfile song.wav\n";
  EXPECT_TRUE(decodeAudio(folder.path() / "song.wav"));
  EXPECT_FALSE(decodeAudio(folder.path() / "list.m3u8"));
  EXPECT_FALSE(decodeAudio(folder.path() / "list.ffconcat"));
}

TEST(Audio, ReadingCanBeCancelledAndTellsHowFarItIs) {
  double told = 0;
  const auto whole = decodeAudio(std::string(CHISPA_SOURCE_DIR) + "/demo/slow-round.ogg", [&](double share) {
    EXPECT_TRUE(share >= 0 && share <= 1);
    told = std::max(told, share);
    return true;
  });
  ASSERT_TRUE(whole);
  EXPECT_GT(told, 0.5);
  const auto cancelled = decodeAudio(std::string(CHISPA_SOURCE_DIR) + "/demo/slow-round.ogg",
                                     [&](double share) { return share < 0.3; });
  ASSERT_FALSE(cancelled);
  EXPECT_NE(cancelled.failure().what.text().find("cancelled"), std::string::npos);
}

/// What does not fit into memory lies in a file; it reads the same.
TEST(Audio, ALongPieceReadsAsAShortOneDoes) {
  AudioStore store;
  std::vector<float> block(AudioClip::kBlock * 2);
  const std::size_t blocks = AudioStore::kMaxInMemory / AudioClip::kBlock + 3;
  const auto sampleAt = [](std::size_t i) { return static_cast<float>(i % 10'007) / 10'007; };
  for (std::size_t b = 0; b < blocks; ++b) {
    for (std::size_t i = 0; i < block.size(); ++i) block[i] = sampleAt(b * block.size() + i);
    ASSERT_TRUE(store.add(block));
  }
  const auto clip = store.take();
  EXPECT_EQ(clip->frames(), blocks * AudioClip::kBlock);
  std::vector<float> out(2000);
  for (const std::ptrdiff_t first :
       {std::ptrdiff_t{-500}, std::ptrdiff_t{0}, std::ptrdiff_t{1'234'567},
        static_cast<std::ptrdiff_t>(clip->frames()) - 500, static_cast<std::ptrdiff_t>(clip->frames()) + 5}) {
    clip->read(first, out);
    for (std::ptrdiff_t i = 0; i < 1000; ++i) {
      const std::ptrdiff_t frame = first + i;
      const bool isInside = frame >= 0 && frame < static_cast<std::ptrdiff_t>(clip->frames());
      ASSERT_EQ(out[static_cast<std::size_t>(2 * i)],
                isInside ? sampleAt(static_cast<std::size_t>(2 * frame)) : 0.f)
          << first << " " << i;
    }
  }
}

TEST(WaveformPeaks, AreTheExtremesAtEveryZoom) {
  AudioBuffer clip;
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
  const MusicGrid grid({Micros(0), Micros(1'000'000), Micros(1'500'000), Micros(2'000'000)},
                       {Micros(0), Micros(1'500'000)});
  EXPECT_DOUBLE_EQ(grid.beatAt(Micros(500'000)), 0.5);
  EXPECT_DOUBLE_EQ(grid.beatAt(Micros(1'250'000)), 1.5);
  EXPECT_DOUBLE_EQ(grid.beatAt(Micros(2'500'000)), 4) << "behind the last mark the last gap goes on";
  EXPECT_NEAR(grid.beatInBarAt(Micros(1'750'000)), 0.5, 1e-9);
}

}  // namespace
}  // namespace chispa
