// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/music/stretch.h"

#include <cmath>
#include <numbers>

#include "sound.h"
#include <gtest/gtest.h>

namespace chispa {
namespace {

AudioBuffer tone(double hz, double length_s) {
  AudioBuffer clip;
  for (int i = 0; i < static_cast<int>(length_s * AudioClip::kRate); ++i)
    clip.samples.insert(clip.samples.end(), 2,
                        static_cast<float>(0.5 * std::sin(2 * std::numbers::pi * hz * i / AudioClip::kRate)));
  return clip;
}

/// Its pitch by the rising zero crossings of its middle second.
double pitchOf(const AudioClip& clip) {
  const auto mono = test::monoOf(clip);
  const std::size_t from = clip.frames() / 2 - AudioClip::kRate / 2;
  int crossings = 0;
  for (std::size_t i = from; i < from + AudioClip::kRate; ++i)
    crossings += mono[i] < 0 && mono[i + 1] >= 0 ? 1 : 0;
  return crossings;
}

double loudest(const AudioClip& clip, double from_s, double to_s) {
  const auto mono = test::monoOf(clip);
  float most = 0;
  for (auto i = static_cast<std::size_t>(from_s * AudioClip::kRate);
       i < static_cast<std::size_t>(to_s * AudioClip::kRate); ++i)
    most = std::max(most, std::abs(mono[i]));
  return static_cast<double>(most);
}

class Rates : public testing::TestWithParam<double> {};

TEST_P(Rates, MakeItLongerOrShorterAtTheSamePitch) {
  const std::atomic<bool> goOn{false};
  const auto made = stretched(tone(440, 4), GetParam(), goOn);
  ASSERT_TRUE(made);
  EXPECT_NEAR(seconds(made->length()), 4 / GetParam(), 0.12);
  EXPECT_NEAR(pitchOf(*made), 440, 4);
  EXPECT_GT(loudest(*made, 1, 1.5), 0.35) << "and as loud";
}

INSTANTIATE_TEST_SUITE_P(Speeds, Rates, testing::Values(0.25, 0.5, 1.0, 1.5));

TEST(Stretched, IsNothingIfCancelled) {
  const std::atomic<bool> cancelled{true};
  EXPECT_EQ(stretched(tone(440, 4), 0.5, cancelled), nullptr);
}

TEST(Shifted, BeginsLaterAfterSilenceOrWithoutItsBeginning) {
  const auto clip = std::make_shared<const AudioBuffer>(tone(440, 2));
  const auto later = shifted(clip, Micros(500'000));
  EXPECT_EQ(later->length(), Micros(2'500'000));
  EXPECT_EQ(loudest(*later, 0, 0.49), 0);
  EXPECT_GT(loudest(*later, 0.5, 1), 0.4);
  const auto earlier = shifted(clip, Micros(-500'000));
  EXPECT_EQ(earlier->length(), Micros(1'500'000));
  EXPECT_FLOAT_EQ(test::monoOf(*earlier)[0], test::monoOf(*clip)[AudioClip::kRate / 2]);
  EXPECT_EQ(shifted(clip, Micros(-9'000'000))->frames(), 0u) << "nothing is left";
}

TEST(CountIn, HasItsClicksBeforeTheMusicBegins) {
  const auto clip = std::make_shared<const AudioBuffer>(tone(440, 3));
  const auto made =
      withCountIn(clip, Micros(1'000'000), {Micros(0), Micros(400'000), Micros(800'000)}, Micros(1'200'000));
  EXPECT_GT(loudest(*made, 0, 0.05), 0.05);
  EXPECT_EQ(loudest(*made, 0.3, 0.39), 0) << "silence between the clicks";
  EXPECT_GT(loudest(*made, 0.4, 0.45), 0.05);
  EXPECT_EQ(loudest(*made, 1.1, 1.19), 0);
  EXPECT_GT(loudest(*made, 1.25, 1.5), 0.4) << "then the music, from where it was asked for";
  EXPECT_NEAR(seconds(made->length()), 1.2 + 2, 0.01);
}

TEST(CountIn, OfASilentScoreIsTheClicksAlone) {
  const auto made = withCountIn(nullptr, Micros(0), {Micros(0)}, Micros(500'000));
  ASSERT_TRUE(made);
  EXPECT_GT(loudest(*made, 0, 0.05), 0.05);
}

}  // namespace
}  // namespace chispa
