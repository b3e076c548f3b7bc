// SPDX-License-Identifier: GPL-3.0-or-later
// Clicks over music: where they fall, whatever stretch is read.
#include "core/music/clicks.h"

#include <cmath>

#include <gtest/gtest.h>

namespace chispa {
namespace {

std::shared_ptr<const AudioClip> quietClip(double length_s) {
  auto clip = std::make_shared<AudioBuffer>();
  clip->samples.assign(static_cast<std::size_t>(length_s * AudioClip::kRate) * 2, 0.01f);
  return clip;
}

std::vector<float> readInBlocks(const AudioClip& clip, std::size_t block) {
  std::vector<float> all;
  for (std::size_t first = 0; first < clip.frames(); first += block) {
    std::vector<float> part(std::min(block, clip.frames() - first) * 2);
    clip.read(static_cast<std::ptrdiff_t>(first), part);
    all.insert(all.end(), part.begin(), part.end());
  }
  return all;
}

TEST(Clicks, FallOnBeatsAndLeaveTheMusicAsItIs) {
  const auto clicked = withClicks(quietClip(3), {{micros(0.5), micros(1.0), micros(1.5)}, {micros(1.0)}});
  const auto sound = readInBlocks(*clicked, 100'000);
  const auto loudest = [&](double from_s, double to_s) {
    float most = 0;
    for (auto i = static_cast<std::size_t>(from_s * AudioClip::kRate) * 2;
         i < static_cast<std::size_t>(to_s * AudioClip::kRate) * 2; ++i)
      most = std::max(most, std::abs(sound[i]));
    return most;
  };
  for (const double beat : {0.5, 1.0, 1.5}) {
    EXPECT_GT(loudest(beat, beat + 0.01), 0.3f) << beat;
    EXPECT_FLOAT_EQ(loudest(beat + 0.02, beat + 0.4), 0.01f) << "only the music behind it";
  }
  EXPECT_FLOAT_EQ(loudest(0, 0.5), 0.01f);
}

/// The sound card asks for stretches of any length: a click that lies across two of them is whole.
TEST(Clicks, AreTheSameHoweverTheyAreRead) {
  const auto clicked = withClicks(quietClip(2), {{micros(0.3), micros(0.7), micros(1.1)}, {micros(0.3)}});
  const auto whole = readInBlocks(*clicked, 1'000'000);
  for (const std::size_t block : {7u, 64u, 480u, 1'000u})
    EXPECT_EQ(readInBlocks(*clicked, block), whole) << block;
}

TEST(Clicks, ABarBeginsHigher) {
  const auto clicked = withClicks(quietClip(2), {{micros(0.5), micros(1.0)}, {micros(0.5)}});
  const auto sound = readInBlocks(*clicked, 1'000'000);
  const auto crossings = [&](double at_s) {
    int count = 0;
    const auto first = static_cast<std::size_t>(at_s * AudioClip::kRate);
    for (std::size_t i = first; i < first + 240; ++i)
      count += (sound[2 * i] > 0.01f) != (sound[2 * i + 2] > 0.01f);
    return count;
  };
  EXPECT_GT(crossings(0.5), crossings(1.0));
}

TEST(Clicks, WithoutMusicOrBeatsNothingIsMade) {
  EXPECT_EQ(withClicks(nullptr, {{micros(1)}, {}}), nullptr);
  const auto clip = quietClip(1);
  EXPECT_EQ(withClicks(clip, {}), clip);
}

}  // namespace
}  // namespace chispa
