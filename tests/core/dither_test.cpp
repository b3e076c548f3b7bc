// SPDX-License-Identifier: GPL-3.0-or-later
// Light between two values, as strips are sent it: measured on the bytes of frame after frame.
#include "core/wire/dither.h"

#include <cmath>
#include <complex>
#include <numbers>
#include <numeric>

#include <gtest/gtest.h>

#include "core/base/hash.h"
#include "core/edit/planedits.h"
#include "core/edit/wireedits.h"
#include "core/render/compiled.h"
#include "core/wire/bluenoise.h"
#include "core/wire/pack.h"

namespace chispa {
namespace {

/// Values of one channel of a fixture: `at(frame, pixel)`.
struct Sent {
  int frames;
  int pixels;
  std::vector<int> values;

  int at(int frame, int pixel) const { return values[static_cast<std::size_t>(frame * pixels + pixel)]; }
  double meanOf(int pixel) const {
    double sum = 0;
    for (int f = 0; f < frames; ++f) sum += at(f, pixel);
    return sum / frames;
  }
};

/// A fixture of that shape on one controller.
class Dithered {
 public:
  explicit Dithered(const Shape& shape, const std::function<void(Show&)>& change = {}) {
    fixture_ = addFixture(show_, shape, {});
    box_ = addController(show_, 16);
    const int count = pixelCount(*find(show_.fixtures, fixture_));
    int port = 0;
    for (int first = 0; first < count; first += 1000)
      hang(show_, {fixture_, first, std::min(1000, count - first)}, {box_, port++, 0});
    if (change) change(show_);
    compiled_ = compile(show_);
    frame_.resize(static_cast<std::size_t>(compiled_->map->count()));
    values_.resize(compiled_->packer->bufferSize());
  }

  /// The first channel on the wire of each pixel, in data order, with that light everywhere.
  Sent send(float light, int frames, double framesPerSecond) {
    for (auto* channel : {&frame_.r, &frame_.g, &frame_.b})
      std::fill(channel->begin(), channel->end(), light);
    Sent sent{frames, static_cast<int>(frame_.size()), {}};
    for (int f = 0; f < frames; ++f) {
      compiled_->packer->pack(frame_, ditherFrame(static_cast<std::uint64_t>(f), framesPerSecond), 1,
                              values_);
      for (std::size_t u = 0, left = frame_.size(); u < compiled_->packer->universeCount(); ++u)
        for (std::size_t p = 0;
             p < 170 && left > 0 && static_cast<int>(p * 3) < compiled_->packer->channelsOf(u); ++p, --left)
          sent.values.push_back(values_[u * kUniverseChannels + p * 3]);
    }
    return sent;
  }

  Show show_;
  ControllerId box_;
  FixtureId fixture_;
  std::shared_ptr<const CompiledShow> compiled_;
  PixelFrame frame_;
  std::vector<std::uint8_t> values_;
};

/// The lowest frequency at which a pixel blinks, by Fourier's transform of one second of frames; 0 for none.
double slowestBlink_hz(const Sent& sent, int pixel) {
  const double mean = sent.meanOf(pixel);
  for (int k = 1; k <= sent.frames / 2; ++k) {
    std::complex<double> sum = 0;
    for (int f = 0; f < sent.frames; ++f)
      sum += (sent.at(f, pixel) - mean) *
             std::polar(1.0, -2 * std::numbers::pi * k * f / static_cast<double>(sent.frames));
    if (std::abs(sum) > 1e-6 * sent.frames) return k;
  }
  return 0;
}

constexpr float ofStep(double value) {
  return static_cast<float>(value / 255);
}

TEST(Dither, NothingBlinksBelowTenHertzAtAnyRate) {
  Dithered strip(LineShape{300, 0.01});
  for (const int fps : {20, 30, 40, 60, 120})
    for (const double value : {0.1, 0.37, 1.5, 3.9}) {
      const Sent sent = strip.send(ofStep(value), fps, fps);
      for (int pixel = 0; pixel < sent.pixels; ++pixel) {
        const double slowest = slowestBlink_hz(sent, pixel);
        ASSERT_TRUE(slowest == 0 || slowest >= 10) << fps << " fps, " << value << ", " << slowest;
      }
    }
}

TEST(Dither, TheMeanOverAllPixelsIsTheLightThatIsMeant) {
  Dithered strip(LineShape{1000, 0.01});
  Dithered matrix(GridShape{48, 16});
  for (const int fps : {40, 60, 120})
    for (int i = 1; i < 40; ++i) {
      const double value = i * 0.1;
      for (Dithered* piece : {&strip, &matrix}) {
        const Sent sent = piece->send(ofStep(value), ditherPeriod(fps), fps);
        const double mean = std::accumulate(sent.values.begin(), sent.values.end(), 0.0) /
                            static_cast<double>(sent.values.size());
        EXPECT_NEAR(mean, value, 0.02) << fps;
      }
    }
}

TEST(Dither, WhatAPeriodCannotSayIsAStillPatternOfAQuarterStep) {
  Dithered strip(LineShape{300, 0.01});
  for (const int fps : {40, 60, 120})
    for (int i = 0; i < 20; ++i) {
      const double value = 2 + i * 0.05;
      const Sent sent = strip.send(ofStep(value), ditherPeriod(fps), fps);
      for (int pixel = 0; pixel < sent.pixels; ++pixel)
        ASSERT_LE(std::abs(sent.meanOf(pixel) - value), 0.25 + 1.0 / 256) << fps << " " << value;
    }
}

/// Correlation of neighbours `step` apart, at one instant.
double correlation(const Sent& sent, int frame, int columns, int dx, int dy) {
  double sum = 0, squares = 0, mean = 0;
  for (int i = 0; i < sent.pixels; ++i) mean += sent.at(frame, i) / static_cast<double>(sent.pixels);
  int pairs = 0;
  for (int i = 0; i < sent.pixels; ++i) {
    squares += std::pow(sent.at(frame, i) - mean, 2) / sent.pixels;
    if (i % columns + dx >= columns || i + dx + dy * columns >= sent.pixels) continue;
    sum += (sent.at(frame, i) - mean) * (sent.at(frame, i + dx + dy * columns) - mean);
    ++pairs;
  }
  return squares > 0 ? sum / pairs / squares : 0;
}

TEST(Dither, NeighboursDoNotStepTogether) {
  Dithered strip(LineShape{1000, 0.01});
  GridShape grid{48, 16};
  grid.serpentine = false;
  Dithered matrix(grid);
  for (const double value : {0.3, 0.5, 1.7}) {
    const Sent line = strip.send(ofStep(value), 4, 40);
    const Sent plane = matrix.send(ofStep(value), 4, 40);
    for (int frame = 0; frame < 4; ++frame) {
      EXPECT_LT(correlation(line, frame, 1000, 1, 0), -0.1) << value;
      EXPECT_LT(correlation(plane, frame, 48, 1, 0), -0.05) << value;
      EXPECT_LT(correlation(plane, frame, 48, 0, 1), -0.05) << value;
    }
  }
}

/// The pattern of one frame is not that of the frame before, moved on: nothing marches.
TEST(Dither, NothingMarchesAlongAStrip) {
  Dithered strip(LineShape{1000, 0.01});
  const Sent sent = strip.send(ofStep(0.25), 4, 40);
  for (int step = 1; step <= 16; ++step) {
    int same = 0, lit = 0;
    for (int i = 0; i + step < sent.pixels; ++i) {
      lit += sent.at(0, i);
      same += sent.at(0, i) && sent.at(1, i + step);
    }
    EXPECT_LT(same, lit * 6 / 10) << step;
  }
}

TEST(Dither, TheColoursOfAPixelDoNotStepTogether) {
  Dithered strip(LineShape{1000, 0.01});
  strip.send(ofStep(0.5), 1, 40);
  int together = 0;
  for (std::size_t p = 0; p < 170; ++p)
    together +=
        strip.values_[p * 3] == strip.values_[p * 3 + 1] && strip.values_[p * 3] == strip.values_[p * 3 + 2];
  EXPECT_LT(together, 90) << "a quarter of 170 by chance";
}

TEST(Dither, AControllerCanBeSentTheNearestValues) {
  Dithered strip(LineShape{300, 0.01}, [](Show& show) {
    changeItem(show.controllers, show.controllers[0]->id, [](Controller& c) { c.dithers = false; });
  });
  for (const auto& [value, wanted] : {std::pair(2.3, 2), std::pair(2.7, 3)}) {
    const Sent sent = strip.send(ofStep(value), 4, 40);
    for (const int v : sent.values) ASSERT_EQ(v, wanted);
  }
}

/// Of 8 bits the mean of the light is right, not that of the values: a bent response makes these differ.
TEST(Dither, TheMeanLightOfABentResponseIsRight) {
  for (const double exponent : {1.0, 2.2}) {
    const Response response{exponent};
    const ResponseTable table(response, 8);
    for (int i = 1; i < 400; ++i) {
      const double light = 0.02 * i / 400;
      double mean = 0;
      for (std::uint32_t threshold = 0; threshold < 256; ++threshold)
        mean += response.lightOf(table.value(static_cast<float>(light), threshold) / 255.0) / 256;
      const double step = response.lightOf(std::ceil(response.valueOf(light) * 255 + 1e-9) / 255) -
                          response.lightOf(std::floor(response.valueOf(light) * 255 - 1e-9) / 255);
      EXPECT_NEAR(mean, light, step / 128) << exponent << " " << light;
    }
  }
}

TEST(BlueNoise, HoldsEachThresholdEquallyOften) {
  const auto tile = blueNoise(32, 32, 7);
  std::vector<int> counts(256);
  for (const std::uint8_t t : tile) ++counts[t];
  for (const int count : counts) EXPECT_EQ(count, 4);
}

/// Energy of the lower frequencies of a tile, of which a half is lit, against that of chance.
TEST(BlueNoise, HasLittleOfTheLowFrequencies) {
  constexpr int kSide = 32;
  const auto energy = [&](const std::function<bool(int)>& lit) {
    double low = 0;
    for (int u = -4; u <= 4; ++u)
      for (int v = 0; v <= 4; ++v) {
        if (u == 0 && v == 0) continue;
        std::complex<double> sum = 0;
        for (int i = 0; i < kSide * kSide; ++i)
          if (lit(i))
            sum +=
                std::polar(1.0, -2 * std::numbers::pi * (u * (i % kSide) + v * (i / kSide)) / double{kSide});
        low += std::norm(sum);
      }
    return low;
  };
  const auto tile = blueNoise(kSide, kSide, 3);
  const double blue = energy([&](int i) { return tile[static_cast<std::size_t>(i)] < 128; });
  const double white = energy([&](int i) { return chance(5, static_cast<std::uint64_t>(i)) < 0.5f; });
  EXPECT_LT(blue, white / 20);
}

}  // namespace
}  // namespace chispa
