// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/music/grains.h"

#include <cmath>

#include <gtest/gtest.h>

namespace chispa {
namespace {

/// Ten seconds whose samples tell where they stand.
AudioBuffer ramp() {
  AudioBuffer clip;
  for (int i = 0; i < 480'000; ++i)
    clip.samples.insert(clip.samples.end(), 2, 0.25f + static_cast<float>(i) / 960'000);
  return clip;
}

TEST(Grains, ATouchIsHeardOnceFromItsPlaceAndThenItIsSilent) {
  const AudioBuffer clip = ramp();
  Grains grains;
  std::vector<float> out(2 * Grains::kLength * 2, 9.f);
  grains.read(clip, out);
  for (const float sample : out) ASSERT_EQ(sample, 0.f) << "nothing was touched";
  grains.touch(100'000);
  grains.read(clip, out);
  const auto middle = static_cast<std::size_t>(Grains::kLength);
  EXPECT_FLOAT_EQ(out[middle], 0.25f + (100'000.f + Grains::kLength / 2.f) / 960'000);
  EXPECT_EQ(out[0], 0.f);
  for (std::size_t i = 2 * middle; i < out.size(); ++i) ASSERT_EQ(out[i], 0.f);
}

TEST(Grains, NothingClicksHoweverFastTheHandIs) {
  const AudioBuffer clip = ramp();
  Grains grains;
  std::vector<float> heard;
  std::vector<float> block(2 * 512);
  for (int i = 0; i < 200; ++i) {
    grains.touch((i * 7919) % 400'000);
    grains.read(clip, block);
    for (std::size_t k = 0; k < block.size(); k += 2) heard.push_back(block[k]);
  }
  float steepest = 0, loudest = 0;
  for (std::size_t i = 1; i < heard.size(); ++i) {
    steepest = std::max(steepest, std::abs(heard[i] - heard[i - 1]));
    loudest = std::max(loudest, heard[i]);
  }
  EXPECT_GT(loudest, 0.3f);
  EXPECT_LT(steepest, 0.01f);
}

TEST(Grains, TheLatestPlaceIsTakenWhenAGrainIsOver) {
  const AudioBuffer clip = ramp();
  Grains grains;
  std::vector<float> out(2 * Grains::kLength);
  grains.touch(0);
  grains.read(clip, std::span(out).first(200));
  grains.touch(50'000);
  grains.touch(300'000);
  grains.read(clip, std::span(out).subspan(200));
  grains.read(clip, out);
  EXPECT_FLOAT_EQ(out[Grains::kLength], 0.25f + (300'000.f + Grains::kLength / 2.f) / 960'000);
}

}  // namespace
}  // namespace chispa
