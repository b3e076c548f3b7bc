// SPDX-License-Identifier: GPL-3.0-or-later
// The camera's eye: words, rounds, sightings on the simulated camera at three severities.
#include <bit>
#include <cmath>
#include <random>

#include <gtest/gtest.h>

#include "core/vision/simulatedcamera.h"
#include "core/vision/spotter.h"
#include "core/vision/stereo.h"

namespace chispa::vision {
namespace {

TEST(BlinkCode, AnyTwoWordsDifferInEightPlaces) {
  for (const int leds : {1, 2, 50, 300, 2000, 4094, 4095, 6000}) {
    const BlinkCode code(leds);
    EXPECT_LE(code.bits(), 32);
    int least = 64;
    const int step = std::max(1, leds / 1500);
    for (int a = 0; a < leds; a += step)
      for (int b = a + 1; b < leds; b += step)
        least = std::min(least, std::popcount(code.word(a) ^ code.word(b)));
    if (leds > 1) {
      EXPECT_GE(least, 8) << leds;
    }
  }
}

TEST(BlinkCode, FourUnreadPlacesAreFilledAndOneWrongIsNoticed) {
  const BlinkCode code(700);
  EXPECT_EQ(code.bits(), 10 + 12) << "log2 n and the checks";
  for (int led = 0; led < 700; led += 13) {
    const std::uint64_t word = code.word(led);
    EXPECT_EQ(code.ledOf(word), led);
    EXPECT_EQ(code.ledOf(word ^ 0b1011, 0b101011), led);
    for (int bit = 0; bit < code.bits(); ++bit)
      EXPECT_FALSE(code.ledOf(word ^ std::uint64_t{1} << bit)) << "one wrong place is no other LED";
  }
}

TEST(Blinking, EveryLedIsLitInHalfOfTheStepsOfItsWord) {
  const BlinkCode code(20);
  for (int led = 0; led < 20; ++led) {
    int lit = 0;
    for (int step = kMarkSteps; step < roundSteps(code.bits()); ++step)
      lit += isBlinkLit(code.word(led), code.bits(), step) ? 1 : 0;
    EXPECT_EQ(lit, code.bits());
    EXPECT_FALSE(isBlinkLit(code.word(led), code.bits(), 0));
    EXPECT_TRUE(isBlinkLit(code.word(led), code.bits(), roundSteps(code.bits()) + 3))
        << "the next round begins alike";
  }
}

/// Strips round a column: no two LEDs at one place of a picture.
std::vector<Vec3> scene(int leds) {
  std::vector<Vec3> points;
  const int rows = std::max(1, static_cast<int>(std::sqrt(leds * 0.55)));
  const int columns = (leds + rows - 1) / rows;
  for (int i = 0; i < leds; ++i) {
    const double angle = (i % columns + 0.5) / columns * 2.2 - 1.1;
    points.push_back({1.4 * std::sin(angle), -1.4 * std::cos(angle) + 0.2 * std::sin(i * 0.7),
                      1.6 * (i / columns) / rows});
  }
  return points;
}

/// Of all LEDs, those count that nothing hides and those that something does.
Rightness capture(int leds, Severity severity, unsigned seed, int width, int height) {
  const auto points = scene(leds);
  Lens lens;
  lens.width = width;
  lens.height = height;
  SimulatedCamera camera(points, viewOfAll(points, lens, 12, 8), defectsOf(severity), seed);
  Spotter spotter(leds, {});
  simulateCapture(camera, spotter.code(), 3, 0.15, 0.3, [&](Frame frame) { spotter.add(std::move(frame)); });
  spotter.finish();
  return rightnessOf(camera, spotter.sightings());
}

constexpr unsigned kSeed = 20'261'123;

TEST(SimulatedCamera, WhatStandsBehindAnotherLedIsNotSeen) {
  const std::vector<Vec3> points{{0, 0, 1}, {0, 1, 1}, {0.5, 1, 1}, {0, 2, 1.5}, {0, 0.001, 1}};
  View view{Lens{}, {0, -3, 1}, {0, 0, 1}};
  ImageDefects defects;
  defects.body_m = 0.004;
  const SimulatedCamera camera(points, view, defects, kSeed);
  EXPECT_TRUE(camera.truth()[0]);
  EXPECT_FALSE(camera.truth()[1]) << "right behind the first";
  EXPECT_TRUE(camera.truth()[2]);
  EXPECT_TRUE(camera.truth()[3]);
  EXPECT_TRUE(camera.truth()[4]) << "beside the first";
  defects.body_m = 0;
  EXPECT_TRUE(SimulatedCamera(points, view, defects, kSeed).truth()[1]);
}

TEST(Spotter, FindsLedsInCleanPictures) {
  for (const int leds : {50, 400}) {
    const Rightness o = capture(leds, Severity::Clean, kSeed, 640, 400);
    EXPECT_GE(o.foundOfAll, 0.995);
    EXPECT_LE(o.median_px, 0.5);
    EXPECT_EQ(o.wrong, 0);
  }
}

TEST(Spotter, FindsLedsThroughNoiseDriftAndMirrors) {
  const Rightness o = capture(200, Severity::Medium, kSeed, 640, 400);
  EXPECT_GE(o.foundOfAll, 0.98);
  EXPECT_EQ(o.wrong, 0);
}

TEST(Spotter, FindsMostLedsBehindAWavingHandAndNoneWrongly) {
  const Rightness o = capture(150, Severity::Hard, kSeed, 640, 400);
  EXPECT_GE(o.foundOfAll, 0.90);
  EXPECT_EQ(o.wrong, 0);
}

/// Two views 30° apart, errors of the spots drawn; the result is laid over the truth by the best rigid motion
/// and compared.
TEST(Stereo, PlacesInSpaceAreRightToAPercentOfTheSize) {
  const auto points = scene(300);
  for (const double k1 : {0.0, -0.15}) {
    Lens lens;
    View views[2] = {viewOfAll(points, lens, -15, 8), viewOfAll(points, lens, 17, 14)};
    std::mt19937 random(kSeed);
    std::normal_distribution<double> error(0, 0.15);
    std::vector<std::optional<Spot>> spots[2];
    for (int v = 0; v < 2; ++v) {
      views[v].lens.k1 = k1;
      for (const Vec3& p : points) {
        auto spot = views[v].project(p);
        spot->x += error(random);
        spot->y += error(random);
        spots[v].push_back(spot);
      }
    }
    spots[1][7].reset();
    const auto space = placesInSpace(spots[0], spots[1], lens, {0, 299, length(points[299] - points[0])});
    ASSERT_TRUE(space);
    EXPECT_FALSE(space->points[7]);
    EXPECT_NEAR(space->k1, k1, 0.02);
    EXPECT_LT(space->medianResidual_px, 0.5);
    // Distances between LEDs do not depend on where the camera stood.
    std::vector<double> off;
    for (std::size_t i = 0; i + 40 < points.size(); ++i)
      if (space->points[i] && space->points[i + 40])
        off.push_back(std::abs(length(*space->points[i + 40] - *space->points[i]) -
                               length(points[i + 40] - points[i])));
    std::sort(off.begin(), off.end());
    EXPECT_LT(off[off.size() / 2], 0.01 * 3.2) << "k1 " << k1;
  }
}

TEST(Stereo, SaysWhatIsMissing) {
  const auto points = scene(30);
  Lens lens;
  const View view = viewOfAll(points, lens, 0, 8);
  std::vector<std::optional<Spot>> spots;
  for (const Vec3& p : points) spots.push_back(view.project(p));
  std::vector<std::optional<Spot>> few(30);
  for (std::size_t i = 0; i < 5; ++i) few[i] = spots[i];
  const auto tooFew = placesInSpace(spots, few, lens, {0, 1, 1});
  ASSERT_FALSE(tooFew);
  EXPECT_NE(tooFew.failure().what.text().find("only 5 LEDs"), std::string::npos);
}

TEST(BlinkCode, ManyUnreadPlacesStillTellAWordFromNone) {
  const BlinkCode code(700);
  constexpr std::uint64_t kSix = 0b10110'0101'0000;
  EXPECT_FALSE(code.ledOf(code.word(5), kSix)) << "too many to fill in";
  EXPECT_TRUE(code.isLikeSome(code.word(5) ^ 0b10000, kSix));
  EXPECT_FALSE(code.isLikeSome(code.word(5) ^ 0b1, kSix));
  EXPECT_FALSE(code.isLikeSome(code.word(5), 0x3ff)) << "what is left might be chance";
}

/// Blinking as it is seen when the machine that lights the LEDs is held up: `stepAt` says which step they
/// show at a time, or nothing for all lit; at times that `isLost` no picture is taken.
Sightings watch(
    const BlinkCode& code, double end_s, const std::function<std::optional<std::int64_t>(double)>& stepAt,
    Spotter& spotter, const std::function<bool(double)>& isLost = [](double) { return false; }) {
  const auto points = scene(code.leds());
  Lens lens;
  lens.width = 640;
  lens.height = 400;
  SimulatedCamera camera(points, viewOfAll(points, lens, 12, 8), defectsOf(Severity::Clean), kSeed);
  std::vector<float> light(points.size());
  for (double t = 0; t < end_s; t += 1 / 30.0) {
    if (isLost(t)) continue;
    const auto step = stepAt(t);
    for (int led = 0; led < code.leds(); ++led)
      light[static_cast<std::size_t>(led)] =
          !step || isBlinkLit(code.word(led), code.bits(), *step) ? 0.3f : 0.f;
    spotter.add({camera.take(light, t), t});
  }
  spotter.finish();
  return spotter.sightings();
}

constexpr double kStep_s = 0.15;

TEST(Spotter, LightThatWasOnBeforeTheBlinkingIsNoMark) {
  for (const double before_s : {0.3, 0.45}) {
    Spotter spotter(100, {});
    const BlinkCode code = spotter.code();
    const double end_s = before_s + (2 * roundSteps(code.bits()) + kMarkSteps + 1) * kStep_s;
    const auto seen = watch(
        code, end_s,
        [&](double t) {
          return t < before_s ? std::nullopt
                              : std::optional(static_cast<std::int64_t>((t - before_s) / kStep_s));
        },
        spotter);
    EXPECT_EQ(spotter.rounds(), 2) << before_s;
    EXPECT_TRUE(seen.missing.empty()) << before_s << ": " << seen.missing.size();
  }
}

/// The light stands still for a while in the first round and then goes on where it should be, or where it
/// was.
TEST(Spotter, RoundsInWhichTheLightWasHeldUpAreLeftOut) {
  for (const bool isCaughtUp : {true, false})
    for (const double held_s : {0.4, 2.0}) {
      Spotter spotter(100, {});
      const BlinkCode code = spotter.code();
      const double from_s = isCaughtUp ? 1.6 : 2.3;
      const double late_s = isCaughtUp ? 0 : held_s;
      const double end_s = late_s + (3 * roundSteps(code.bits()) + kMarkSteps + 1) * kStep_s;
      const auto seen = watch(
          code, end_s,
          [&](double t) {
            const double shown = t < from_s ? t : t < from_s + held_s ? from_s : t - late_s;
            return std::optional(static_cast<std::int64_t>(shown / kStep_s));
          },
          spotter);
      int sure = 0;
      for (const Sighting& one : seen.all) sure += one.doubt.empty() ? 1 : 0;
      EXPECT_GE(sure, 98) << held_s << (isCaughtUp ? " caught up" : " late") << ", rounds "
                          << spotter.rounds();
      EXPECT_GE(spotter.rounds(), 2) << held_s << (isCaughtUp ? " caught up" : " late");
      EXPECT_LE(spotter.rounds() + spotter.misreadRounds(), 3);
    }
}

/// Light, camera and program stand still together for 0.8 s in each 5.1 s, as on a laptop that is short of
/// everything: each round lacks some of its places, another has them.
TEST(Spotter, RoundsWithGapsFillEachOther) {
  Spotter spotter(100, {});
  const BlinkCode code = spotter.code();
  const double end_s = (4 * roundSteps(code.bits()) + kMarkSteps + 1) * kStep_s;
  const auto seen = watch(
      code, end_s, [](double t) { return std::optional(static_cast<std::int64_t>(t / kStep_s)); }, spotter,
      [](double t) { return std::fmod(t + 1, 5.1) < 0.8; });
  EXPECT_GE(spotter.rounds(), 1) << "rounds whose marks lie in gaps are lost";
  EXPECT_EQ(seen.missing.size(), 0u);
}

TEST(Spotter, FramesWithoutBlinkingShowNothing) {
  Spotter spotter(40, {});
  Picture grey{64, 48, std::vector<std::uint8_t>(64 * 48, 20)};
  for (int i = 0; i < 300; ++i) spotter.add({grey, i / 30.0});
  spotter.finish();
  const Sightings seen = spotter.sightings();
  EXPECT_TRUE(seen.all.empty());
  EXPECT_EQ(seen.missing.size(), 40u);
}

}  // namespace
}  // namespace chispa::vision
