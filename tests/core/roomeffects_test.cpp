// SPDX-License-Identifier: GPL-3.0-or-later
// Light that has a place and a size in the room: it is measured in metres and seconds.
#include <gtest/gtest.h>

#include "core/edit/planedits.h"
#include "core/effect/effect.h"
#include "core/effecttrial.h"

namespace chispa {
namespace {

using test::brightest;
using test::run;

/// A line of `count` LEDs from `from` on along x, or, stood up, along z; so many centimetres apart.
ZoneCells lineAt(Vec3 from, int count, double pitch_m, bool isUpright = false) {
  Show show;
  std::vector<Vec3> points;
  for (int i = 0; i < count; ++i)
    points.push_back(isUpright ? Vec3{0, 0, i * pitch_m} : Vec3{i * pitch_m, 0, 0});
  Fixture line{FixtureId{1}, "Line", {}, {}, {{"s", PointsShape{points}, {}}}};
  line.place.position_m = from;
  put(show.fixtures, line);
  return cellsOf(show, mapPixels(show),
                 {ZoneId{2}, "Z", {{FixtureId{1}, std::nullopt, false}}, ZoneLayout::Strand, 1});
}

/// When light first passes `level` at `cell`, looked for every 5 ms.
double arrival_s(const std::string& key, const ZoneCells& cells, std::size_t cell, const ParamValues& values,
                 float level = 0.5f) {
  for (double t = 0; t < 20; t += 0.005)
    if (run(key, cells, t, values).a[cell] >= level) return t;
  return -1;
}

TEST(RoomEffects, AFrontWalksAtItsSpeedThroughPiecesThatStandApart) {
  const ParamValues values{{"speed", 2.0}, {"apart", 50.0}, {"trail", 0.0}};
  const ZoneCells near = lineAt({1, 0, 0}, 10, 0.1);
  const ZoneCells far = lineAt({7, 3, 1}, 10, 0.1);
  EXPECT_NEAR(arrival_s("front", near, 0, values), 0.5, 0.05);
  EXPECT_NEAR(arrival_s("front", near, 9, values), 0.95, 0.05);
  EXPECT_NEAR(arrival_s("front", far, 0, values), 3.5, 0.05);
  // Turned by a quarter it walks along y: all of a line along x is lit at once.
  const ParamValues turned{{"speed", 2.0}, {"apart", 50.0}, {"trail", 0.0}, {"turn", 90.0}};
  EXPECT_NEAR(arrival_s("front", far, 0, turned), 1.5, 0.05);
  EXPECT_NEAR(arrival_s("front", far, 9, turned), 1.5, 0.05);
}

TEST(RoomEffects, AFrontMovesWithoutSteps) {
  const ZoneCells cells = lineAt({0, 0, 0}, 100, 0.05);
  float most = 0;
  for (double t = 0.5; t < 2; t += 0.025) {
    const LightBuffer before = run("front", cells, t, {{"speed", 1.0}});
    const LightBuffer after = run("front", cells, t + 0.025, {{"speed", 1.0}});
    for (std::size_t i = 0; i < before.size(); ++i) most = std::max(most, std::abs(after.a[i] - before.a[i]));
  }
  EXPECT_LT(most, 0.5f);
}

TEST(RoomEffects, SoundingsArriveAfterTheirWay) {
  const ParamValues values{
      {"from", std::string("room")}, {"speed", 4.0}, {"every", 32.0}, {"reach", 60.0}, {"thick", 1.0}};
  const ZoneCells cells = lineAt({3, 4, 0}, 3, 0.5);
  EXPECT_NEAR(arrival_s("soundings", cells, 0, values), 5 / 4.0, 0.06);
  EXPECT_NEAR(arrival_s("soundings", cells, 2, values), std::hypot(4, 4) / 4, 0.06);
}

TEST(RoomEffects, SoundingsGrowWeakerOnTheirWay) {
  const ZoneCells cells = lineAt({0, 0, 0}, 61, 0.1);
  const ParamValues values{{"from", std::string("room")}, {"reach", 2.0}, {"every", 32.0}};
  std::vector<float> most(61);
  for (double t = 0; t < 4; t += 0.02) {
    const LightBuffer light = run("soundings", cells, t, values);
    for (std::size_t i = 0; i < most.size(); ++i) most[i] = std::max(most[i], light.a[i]);
  }
  EXPECT_GT(most[5], most[30]);
  EXPECT_GT(most[30], most[60]);
  EXPECT_NEAR(most[40] / most[20], std::exp(-1.0), 0.06) << "by its reach to an e-th";
}

TEST(RoomEffects, TheTideIsLevelThroughAllPieces) {
  const ParamValues values{
      {"from", std::string("room")}, {"every", 4.0}, {"low", 0.0}, {"high", 2.0}, {"waves", 0.0}};
  // Half of the tide has gone by after a bar: the water stands at half its way.
  const double bar = test::kTrialBar_s;
  for (const Vec3 foot : {Vec3{0, 0, 0}, Vec3{5, -2, 0}}) {
    const ZoneCells post = lineAt(foot, 41, 0.05, true);
    const LightBuffer light = run("tidewater", post, bar, values);
    for (std::size_t i = 0; i < light.size(); ++i)
      EXPECT_NEAR(light.a[i], i < 20 ? 1 : i > 20 ? 0 : 0.5, 1e-3) << i;
  }
  // The foam is whiter than the deep.
  const ZoneCells post = lineAt({0, 0, 0}, 41, 0.05, true);
  const LightBuffer light = run("tidewater", post, bar, values);
  EXPECT_GT(std::min({light.r[19], light.g[19], light.b[19]}), 0.2f);
}

TEST(RoomEffects, APendulumLightsWhatItPasses) {
  const ZoneCells cells = lineAt({-2, 0, 0}, 81, 0.05);
  const ParamValues values{{"swing", 1.0}, {"every", 4.0}, {"reach", 0.3}};
  const double beat = test::kTrialBeat_s;
  // From the right to the middle and to the left; the zone's middle is at x = 0.
  EXPECT_NEAR(cells.position_m[brightest(run("pendulum", cells, 0, values))].x, 1, 0.051);
  EXPECT_NEAR(cells.position_m[brightest(run("pendulum", cells, beat, values))].x, 0, 0.051);
  EXPECT_NEAR(cells.position_m[brightest(run("pendulum", cells, 2 * beat, values))].x, -1, 0.051);
  const LightBuffer middle = run("pendulum", cells, beat, values);
  EXPECT_NEAR(middle.a[40], 1, 1e-3);
  EXPECT_NEAR(middle.a[46], 0.25, 1e-2) << "a quarter at its reach";
}

TEST(RoomEffects, TheSwarmIsOneForAllPieces) {
  // Two pieces whose ends touch: the light passes from the one into the other without a seam.
  const ParamValues values{{"from", std::string("room")}, {"within", 3.0}, {"flat", 0.0}};
  const ZoneCells left = lineAt({-2, 0, 0}, 41, 0.05);
  const ZoneCells right = lineAt({0, 0, 0}, 41, 0.05);
  bool isSeen = false;
  for (double t = 0; t < 20; t += 0.1) {
    const float end = run("swarm", left, t, values).a[40];
    EXPECT_NEAR(end, run("swarm", right, t, values).a[0], 1e-5f);
    isSeen = isSeen || end > 0.5f;
  }
  EXPECT_TRUE(isSeen);
  // Nobody leaves the room that it flies in.
  const ZoneCells outside = lineAt({6, 0, 0}, 5, 0.05);
  for (double t = 0; t < 20; t += 0.1) EXPECT_LT(run("swarm", outside, t, values).a[0], 0.02f);
}

TEST(RoomEffects, RainFallsAtItsSpeedAndPiecesOfOneFallShareIt) {
  const ParamValues values{{"speed", 2.0}, {"apart", 1.0}, {"often", 0.5}, {"length", 0.3}};
  const ZoneCells post = lineAt({0.2, 0.2, 0}, 200, 0.02, true);
  const ZoneCells beside = lineAt({0.7, 0.4, 0}, 200, 0.02, true);
  int drops = 0;
  for (double t = 0; t < 10; t += 0.1) {
    const LightBuffer light = run("cloudburst", post, t, values);
    EXPECT_EQ(light.a, run("cloudburst", beside, t, values).a) << "the same square metre";
    // What is lit near the top is lit 0.2 m further down a tenth of a second later.
    const LightBuffer later = run("cloudburst", post, t + 0.1, values);
    for (std::size_t i = 40; i < 190; ++i) {
      ASSERT_NEAR(later.a[i - 10], light.a[i], 2e-3f) << t << " " << i;
      drops += light.a[i] > 0.8f;
    }
  }
  EXPECT_GT(drops, 10);
  // Another square has drops of its own.
  EXPECT_NE(run("cloudburst", post, 5, values).a,
            run("cloudburst", lineAt({5.2, 0.2, 0}, 200, 0.02, true), 5, values).a);
}

}  // namespace
}  // namespace chispa
