// SPDX-License-Identifier: GPL-3.0-or-later
// What each effect of flows, steps and plain light is known by.
#include <cmath>
#include <numeric>
#include <set>

#include "effecttrial.h"
#include <gtest/gtest.h>

#include "core/effect/edges.h"

namespace chispa {
namespace {

using test::brightest;
using test::cellsFor;
using test::kTrialBar_s;
using test::kTrialBeat_s;
using test::kTrialLength_s;
using test::meanLight;
using test::run;

/// Number of cells brighter than both neighbours, on a ring.
int crests(const LightBuffer& light) {
  int found = 0;
  const std::size_t n = light.size();
  for (std::size_t i = 0; i < n; ++i)
    found += light.a[i] > light.a[(i + n - 1) % n] && light.a[i] >= light.a[(i + 1) % n] ? 1 : 0;
  return found;
}

TEST(HueWheel, HasOneLightnessForAllHues) {
  const ZoneCells cells = cellsFor(LineShape{360, 0.02});
  const LightBuffer light = run("hue-wheel", cells, 0);
  for (std::size_t i = 0; i < light.size(); ++i)
    EXPECT_NEAR(toOkLab({light.r[i], light.g[i], light.b[i]}).lightness, 0.72f, 0.005f) << i;
}

TEST(HueWheel, ComesRoundAfterItsTurn) {
  const ZoneCells cells = cellsFor(LineShape{50, 0.02});
  const LightBuffer now = run("hue-wheel", cells, 0.3, {{"turns", 1.0}});
  const LightBuffer later = run("hue-wheel", cells, 0.3 + 1.5, {{"turns", 1.0}});
  for (std::size_t i = 0; i < now.size(); ++i) EXPECT_NEAR(now.g[i], later.g[i], 0.01f);
}

TEST(Ribbon, TravelsOneRepeatInABar) {
  const ZoneCells cells = cellsFor(LineShape{50, 0.02});
  const ParamValues one = {{"passes", 1.0}};
  const LightBuffer now = run("ribbon", cells, 0.25, one);
  const LightBuffer barLater = run("ribbon", cells, 0.25 + 1.5, one);
  for (std::size_t i = 0; i < now.size(); ++i) EXPECT_NEAR(now.r[i], barLater.r[i], 0.02);
}

TEST(Swell, HasAsManyCrestsAsWavesAndComesRoundInABar) {
  const ZoneCells cells = cellsFor(ArcShape{120, 1, 0, 360});
  const ParamValues values = {{"waves", 5.0}, {"passes", 1.0}};
  const LightBuffer now = run("swell", cells, 0.4, values);
  const LightBuffer later = run("swell", cells, 0.4 + kTrialBar_s, values);
  EXPECT_NEAR(crests(now), 5, 1) << "the ends of an open axis may cut one";
  for (std::size_t i = 0; i < now.size(); ++i) EXPECT_NEAR(now.a[i], later.a[i], 1e-3f);
  EXPECT_EQ(*std::min_element(now.a.begin(), now.a.end()) < 0.15f, true) << "between waves it is nearly dark";
}

TEST(Ripples, SpreadFromTheirPointAtTheirSpeed) {
  const ZoneCells cells = cellsFor(GridShape{41, 41, 0.05, 0.05});
  for (const double beats : {0.3, 0.6, 0.9}) {
    const LightBuffer light = run("ripples", cells, beats * kTrialBeat_s,
                                  {{"every", 16.0}, {"speed", 1.0}, {"fade", 0.0}, {"width", 0.1}});
    const std::size_t at = brightest(light);
    EXPECT_NEAR(std::hypot(cells.x[at], cells.y[at]), beats, 0.04);
    EXPECT_GT(light.a[at], 0.5f);
  }
}

TEST(Vanes, IsAlikeInEachArmAndAfterAnArmsTurn) {
  const ZoneCells cells = cellsFor(ArcShape{40, 1, 0, 360});
  const ParamValues values = {{"arms", 4.0}, {"turns", 0.25}};
  const LightBuffer now = run("vanes", cells, 0.4, values);
  const LightBuffer armLater = run("vanes", cells, 0.4 + kTrialBar_s, values);
  for (std::size_t i = 0; i < 40; ++i) {
    EXPECT_NEAR(now.a[i], now.a[(i + 10) % 40], 0.02f) << i;
    EXPECT_NEAR(now.a[i], armLater.a[i], 0.02f) << "a quarter turn a bar is one of four arms";
  }
  EXPECT_NE(now.a, run("vanes", cells, 0.9, values).a);
}

TEST(Slats, AreShutOpenAndShutAgain) {
  const ZoneCells cells = cellsFor(LineShape{60, 0.05});
  const ParamValues values = {{"stagger", 0.0}, {"every", 1.0}, {"across", std::string("along")}};
  EXPECT_LT(meanLight(run("slats", cells, 0, values)), 0.02);
  EXPECT_GT(meanLight(run("slats", cells, kTrialBar_s / 2, values)), 0.8);
  const LightBuffer half = run("slats", cells, kTrialBar_s / 4, values);
  EXPECT_NEAR(meanLight(half), 0.5, 0.15);
  EXPECT_GT(half.a[5], half.a[0]) << "a slat opens about its own middle";
}

TEST(Weave, LooksTheSameFromBothEnds) {
  const ZoneCells cells = cellsFor(LineShape{101, 0.05});
  const LightBuffer light = run("weave", cells, 0.37);
  for (std::size_t i = 0; i < 101; ++i) EXPECT_NEAR(light.a[i], light.a[100 - i], 2e-3f) << i;
  EXPECT_NE(light.r, run("weave", cells, 0.47).r);
}

TEST(Chase, MovesByOneLampAStep) {
  const ZoneCells cells = cellsFor(LineShape{16, 0.1});
  const LightBuffer now = run("chase", cells, 0.1, {{"period", 4.0}, {"steps", 1.0}, {"soft", 0.0}});
  const LightBuffer next = run("chase", cells, 0.6, {{"period", 4.0}, {"steps", 1.0}, {"soft", 0.0}});
  EXPECT_EQ(std::count(now.a.begin(), now.a.end(), 1.f), 4);
  for (std::size_t i = 0; i + 1 < 16; ++i) EXPECT_EQ(now.a[i], next.a[i + 1]) << i;
}

TEST(Unveil, BeginsAtItsSideInAnyDirectionOfSpace) {
  const ZoneCells cells = cellsFor(GridShape{20, 20, 0.05, 0.05});
  for (const double turn : {0.0, 180.0}) {
    const LightBuffer light =
        run("unveil", cells, 4,
            {{"across", std::string("plane")}, {"turn", turn}, {"tilt", 0.0}, {"edge", 0.001}});
    int lit = 0, leftLit = 0;
    for (std::size_t i = 0; i < light.size(); ++i) {
      lit += light.a[i] > 0.5f ? 1 : 0;
      leftLit += light.a[i] > 0.5f && cells.column[i] < 10 ? 1 : 0;
    }
    EXPECT_NEAR(lit, 200, 21);
    EXPECT_NEAR(leftLit, turn == 0 ? 200 : 0, 21);
  }
}

TEST(Pour, FillsFromStartToEnd) {
  const ZoneCells cells = cellsFor(LineShape{100, 0.01});
  const auto filled = [&](double t) {
    const LightBuffer light = run("pour", cells, t, {{"edge", 0.001}});
    return std::count_if(light.a.begin(), light.a.end(), [](float a) { return a > 0.5f; });
  };
  EXPECT_EQ(filled(0), 0);
  EXPECT_NEAR(static_cast<double>(filled(4)), 50, 1);
  EXPECT_NEAR(static_cast<double>(filled(7.99)), 100, 1);
}

TEST(Strobe, NeverFlashesMoreThanThreeTimesASecond) {
  const ZoneCells cells = cellsFor(LineShape{4, 0.1});
  for (const bool onBeat : {false, true}) {
    int flashes = 0;
    bool wasLit = false;
    for (double t = 0; t < 8; t += 0.004) {
      const bool isLit = run("strobe", cells, t, {{"rate", 3.0}, {"sync", onBeat}}).a[0] > 0;
      flashes += isLit && !wasLit ? 1 : 0;
      wasLit = isLit;
    }
    EXPECT_GT(flashes, 8);
    EXPECT_LE(flashes, 24 + 1);
  }
}

TEST(Parade, MarchesAThirdOfABlockAStep) {
  const ZoneCells cells = cellsFor(LineShape{48, 0.1});
  const ParamValues values = {{"groups", 4.0}, {"steps", 1.0}, {"lit", 0.5}, {"glide", 0.0}};
  const LightBuffer now = run("parade", cells, 0.1, values);
  const LightBuffer next = run("parade", cells, 0.1 + kTrialBeat_s, values);
  EXPECT_NEAR(meanLight(now), 0.5, 0.1);
  int alike = 0;
  for (std::size_t i = 0; i + 4 < 48; ++i)
    alike += now.a[i] == next.a[i + 4] && now.r[i] == next.r[i + 4] ? 1 : 0;
  EXPECT_GE(alike, 42) << "all but a cell at an edge here and there";
}

/// Of all change of light at 40 frames a second, the part that is jumps over more than half of a cell's
/// range.
double stepShare(const char* effect, const ZoneCells& cells, const ParamValues& values) {
  std::vector<LightBuffer> seen;
  for (int frame = 0; frame < 160; ++frame) seen.push_back(run(effect, cells, 1 + frame / 40.0, values));
  double jumps = 0, changes = 0;
  for (std::size_t i = 0; i < seen[0].size(); ++i) {
    float low = 1, high = 0;
    for (const LightBuffer& light : seen) {
      low = std::min(low, light.a[i]);
      high = std::max(high, light.a[i]);
    }
    for (std::size_t f = 1; f < seen.size(); ++f) {
      const auto change = static_cast<double>(std::abs(seen[f].a[i] - seen[f - 1].a[i]));
      changes += change;
      if (change > 0.5 * static_cast<double>(high - low)) jumps += change;
    }
  }
  return changes > 0 ? jumps / changes : 0;
}

/// What travels does so without steps, on few cells and on many, unless it is told to step.
TEST(Edges, WhatTravelsGlides) {
  for (const int count : {24, 300}) {
    const ZoneCells cells = cellsFor(LineShape{count, 0.02});
    for (const char* effect : {"comets", "drizzle", "chase", "parade", "carillon", "toss"})
      EXPECT_LT(stepShare(effect, cells, {{"across", std::string("along")}}), 0.35) << effect << " " << count;
    EXPECT_GT(stepShare("chase", cells, {{"soft", 0.0}}), 0.9);
    EXPECT_GT(stepShare("parade", cells, {{"glide", 0.0}}), 0.9);
  }
}

/// However far a bright stretch is into a cell, the light on the whole is the same.
TEST(Edges, CoverTheirLengthWhereverTheyAre) {
  for (const float width : {0.01f, 0.05f, 0.2f})
    for (float from = 0.2f; from < 0.4f; from += 0.003f) {
      float sum = 0;
      for (int cell = 0; cell < 100; ++cell)
        sum += coverage(from, from + 0.3f, (static_cast<float>(cell) + 0.5f) / 100, width) / 100;
      EXPECT_NEAR(sum, 0.3f, 2e-3f) << width << " " << from;
    }
}

TEST(Turnabout, GivesTheLightToTheNeighbours) {
  const ZoneCells cells = cellsFor(LineShape{80, 0.1});
  const ParamValues values = {{"parts", 8.0}, {"every", 1.0}, {"fade", 0.0}, {"rest", 0.0}};
  const LightBuffer now = run("turnabout", cells, 0.1, values);
  const LightBuffer next = run("turnabout", cells, 0.1 + kTrialBeat_s, values);
  EXPECT_DOUBLE_EQ(meanLight(now), 0.5);
  for (std::size_t i = 0; i < 80; ++i) EXPECT_EQ(now.a[i] + next.a[i], 1) << i;
}

TEST(Stack, GrowsByABrickABeatAndIsTakenAwayAgain) {
  const ZoneCells cells = cellsFor(LineShape{80, 0.05});
  const auto lying = [&](double beats) {
    const LightBuffer light =
        run("stack", cells, beats * kTrialBeat_s,
            {{"across", std::string("along")}, {"bricks", 8.0}, {"per-beat", 1.0}, {"gap", 0.0}});
    return std::find(light.a.begin(), light.a.end(), 0.f) - light.a.begin();
  };
  for (int n = 1; n < 7; ++n) EXPECT_NEAR(static_cast<double>(lying(n + 0.01)), 10 * n, 1) << n;
  EXPECT_EQ(lying(12.01), 0) << "taken away from below";
}

TEST(Gauge, IsAsLongAsItsValue) {
  const ZoneCells cells = cellsFor(LineShape{100, 0.05});
  for (const double value : {0.0, 0.25, 0.8, 1.0})
    EXPECT_NEAR(meanLight(run("gauge", cells, 1,
                              {{"across", std::string("along")}, {"value", value}, {"edge", 0.001}})),
                value, 0.012);
}

TEST(Hold, StandsStillInOneColourOrInAll) {
  const ZoneCells cells = cellsFor(LineShape{30, 0.05});
  const LightBuffer one = run("hold", cells, 1, {{"place", 1.0}});
  EXPECT_EQ(one.b, run("hold", cells, 7.3, {{"place", 1.0}}).b);
  EXPECT_EQ(std::set<float>(one.b.begin(), one.b.end()).size(), 1u);
  const LightBuffer all = run("hold", cells, 1, {{"spread", 1.0}, {"place", 0.5}});
  EXPECT_GT(all.r.front(), 0.9f);
  EXPECT_GT(all.b.back(), 0.9f);
}

TEST(Black, CoversJustItsPart) {
  const ZoneCells cells = cellsFor(LineShape{100, 0.05});
  const LightBuffer light = run("black", cells, 1, {{"from", 0.25}, {"to", 0.75}});
  EXPECT_NEAR(meanLight(light), 0.5, 0.02);
  EXPECT_EQ(light.a[10], 0);
  EXPECT_EQ(light.a[50], 1);
  EXPECT_EQ(*std::max_element(light.r.begin(), light.r.end()), 0);
}

}  // namespace
}  // namespace chispa
