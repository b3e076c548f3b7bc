// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/music/bandwaves.h"

#include <cmath>
#include <numbers>

#include <gtest/gtest.h>

namespace chispa {
namespace {

/// A second of a tone at half of full.
AudioBuffer tone(double hz) {
  AudioBuffer clip;
  for (int i = 0; i < AudioClip::kRate; ++i)
    for (int c = 0; c < AudioClip::kChannels; ++c)
      clip.samples.push_back(0.5f *
                             static_cast<float>(std::sin(2 * std::numbers::pi * hz * i / AudioClip::kRate)));
  return clip;
}

TEST(BandWaves, ATonesWaveStandsInItsBandAlone) {
  const std::array<double, 3> tones = {60, 650, 8'000};
  for (std::size_t own = 0; own < tones.size(); ++own) {
    const auto bands = bandWaves(tone(tones[own]));
    for (std::size_t band = 0; band < bands.size(); ++band) {
      const float high = bands[band].between(Micros(400'000), Micros(600'000)).high;
      EXPECT_NEAR(high, band == own ? 0.5f : 0.f, 0.03f) << tones[own] << " Hz in band " << band;
    }
  }
}

TEST(BandWaves, AtTheEdgeBothBandsHaveHalf) {
  const auto bands = bandWaves(tone(kLowEnds_hz));
  EXPECT_NEAR(bands[0].between(Micros(400'000), Micros(600'000)).high, 0.25f, 0.02f);
  EXPECT_NEAR(bands[1].between(Micros(400'000), Micros(600'000)).high, 0.25f, 0.02f);
}

}  // namespace
}  // namespace chispa
