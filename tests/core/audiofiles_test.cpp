// SPDX-License-Identifier: GPL-3.0-or-later
// Files as people have them: every rate and number of channels, cover pictures, joined and cut off. What is
// heard must stand where it was played.
#include <cmath>
#include <cstdlib>
#include <fstream>
#include <numbers>

#include "temporary.h"
#include "wavefile.h"
#include <gtest/gtest.h>

#include "core/media/audio.h"

namespace chispa {
namespace {

namespace fs = std::filesystem;

constexpr double kLength_s = 6;

/// A short tone at each half second.
double tonesAt(double t) {
  return std::fmod(t, 0.5) < 0.04 ? 0.6 * std::sin(2 * std::numbers::pi * 900 * t) : 0;
}

/// The seconds at which it becomes loud.
std::vector<double> tonesOf(const AudioClip& clip) {
  std::vector<float> sound(clip.frames() * AudioClip::kChannels);
  clip.read(0, sound);
  std::vector<double> found;
  std::size_t quietSince = 0;
  constexpr std::size_t kQuiet = AudioClip::kRate / 5;
  for (std::size_t i = 0; i < clip.frames(); ++i) {
    if (std::abs(sound[2 * i]) < 0.12f) continue;
    if (i >= quietSince + kQuiet || found.empty()) found.push_back(static_cast<double>(i) / AudioClip::kRate);
    quietSince = i;
  }
  return found;
}

class AudioFiles : public testing::Test {
 protected:
  void SetUp() override {
    if (std::system("ffmpeg -version > /dev/null 2>&1") != 0) GTEST_SKIP() << "ffmpeg is not installed";
    std::ofstream(at("tones.wav"), std::ios::binary) << test::waveFile(44'100, 1, kLength_s, tonesAt);
  }
  fs::path at(const std::string& name) const { return folder_.path() / name; }
  /// Encodes with ffmpeg's words; the new file's name ends them.
  fs::path made(const std::string& words, const std::string& name,
                const std::string& from = "tones.wav") const {
    const std::string command =
        "ffmpeg -nostdin -loglevel error -y -i " + at(from).string() + " " + words + " " + at(name).string();
    EXPECT_EQ(std::system(command.c_str()), 0) << command;
    return at(name);
  }
  /// All tones stand where they were played, within `off_s`.
  static void expectTones(const fs::path& path, double off_s = 0.012, std::size_t count = 12) {
    const auto clip = decodeAudio(path);
    ASSERT_TRUE(clip) << clip.failure().text();
    const auto heard = tonesOf(**clip);
    ASSERT_EQ(heard.size(), count) << path.filename();
    for (std::size_t n = 0; n < heard.size(); ++n)
      EXPECT_NEAR(heard[n], 0.5 * static_cast<double>(n), off_s) << path.filename();
  }
  test::TemporaryFolder folder_;
};

TEST_F(AudioFiles, OfAnyRateAndAnyNumberOfChannels) {
  for (const char* rate : {"8000", "11025", "22050", "48000", "96000", "192000"})
    expectTones(made(std::string("-ar ") + rate, std::string("rate") + rate + ".wav"));
  expectTones(made("-ac 6", "six.flac"));
  expectTones(made("-ac 8 -ar 48000", "eight.wav"));
}

TEST_F(AudioFiles, WithWhatEncodersAddInFront) {
  // Their delay is told in tags, and is not played.
  expectTones(made("-b:a 128k", "gapless.mp3"));
  expectTones(made("-b:a 96k", "gapless.m4a"));
  expectTones(made("-c:a libopus", "gapless.opus"));
  expectTones(made("-q:a 3", "plain.ogg"));
}

TEST_F(AudioFiles, WithACoverPicture) {
  made("-f lavfi -i color=red:size=300x300 -map 1:v -frames:v 1", "cover.png");
  const std::string words =
      "-i " + at("cover.png").string() + " -map 0:a -map 1:v -c:v copy -disposition:v attached_pic";
  expectTones(made(words + " -b:a 128k", "cover.mp3"));
  expectTones(made(words, "cover.flac"));
}

TEST_F(AudioFiles, JoinedOneBehindTheOther) {
  const fs::path one = made("-b:a 128k -write_xing 0", "one.mp3");
  std::ofstream joined(at("joined.mp3"), std::ios::binary);
  for (int n = 0; n < 2; ++n) joined << std::ifstream(one, std::ios::binary).rdbuf();
  joined.close();
  const auto clip = decodeAudio(at("joined.mp3"));
  ASSERT_TRUE(clip) << clip.failure().text();
  EXPECT_NEAR(seconds((*clip)->length()), 2 * kLength_s, 0.2);
  EXPECT_EQ(tonesOf(**clip).size(), 24u);
}

TEST_F(AudioFiles, CutOffInTheMiddle) {
  for (const auto& [words, name] : std::vector<std::pair<std::string, std::string>>{
           {"-b:a 128k", "half.mp3"}, {"-q:a 3", "half.ogg"}, {"", "half.flac"}, {"", "halfcopy.wav"}}) {
    const fs::path whole = made(words, name);
    // Half of what is sound: a Vorbis file of this length is as much tables.
    const auto size = fs::file_size(whole);
    fs::resize_file(whole, name.ends_with(".ogg") ? size * 3 / 4 : size / 2);
    const auto clip = decodeAudio(whole);
    ASSERT_TRUE(clip) << name << ": " << clip.failure().text();
    // What is there is heard; nothing is made up behind it.
    const double length_s = seconds((*clip)->length());
    EXPECT_GT(length_s, 0.25 * kLength_s) << name;
    EXPECT_LT(length_s, 0.75 * kLength_s) << name;
    const auto heard = tonesOf(**clip);
    ASSERT_GE(heard.size(), 3u) << name;
    for (std::size_t n = 0; n < heard.size(); ++n)
      EXPECT_NEAR(heard[n], 0.5 * static_cast<double>(n), 0.012) << name;
  }
}

TEST_F(AudioFiles, ThatTellAWrongLength) {
  // The header speaks of three times as much as there is.
  std::string data;
  {
    std::ifstream file(at("tones.wav"), std::ios::binary);
    data.assign(std::istreambuf_iterator<char>(file), {});
  }
  const auto size = static_cast<std::uint32_t>((data.size() - 44) * 3);
  for (std::size_t i = 0; i < 4; ++i) data[40 + i] = static_cast<char>(size >> (8 * i));
  std::ofstream(at("wrong.wav"), std::ios::binary) << data;
  expectTones(at("wrong.wav"));
  const auto clip = decodeAudio(at("wrong.wav"));
  EXPECT_NEAR(seconds((*clip)->length()), kLength_s, 0.05);
}

}  // namespace
}  // namespace chispa
