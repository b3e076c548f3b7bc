// SPDX-License-Identifier: GPL-3.0-or-later
// Light that knows metres, pieces, bars and sections, and edges that are hard.
#include <cmath>
#include <set>

#include "effecttrial.h"
#include <gtest/gtest.h>

#include "core/edit/planedits.h"
#include "core/edit/scoreedits.h"
#include "core/edit/zoneedits.h"
#include "core/render/renderer.h"

namespace chispa {
namespace {

using test::cellsFor;
using test::run;

/// Where along a line, in metres, light is brightest.
double brightestAt_m(const LightBuffer& light, double pitch_m) {
  return (static_cast<double>(test::brightest(light)) + 0.5) * pitch_m;
}

/// A head at two metres a second is two metres further on after a second, on a short piece and on a long one.
TEST(Pace, InMetresIsTheSameOnEveryPiece) {
  const ParamValues values{{"heads", 1.0}, {"tail", 0.1}, {"pace", std::string("metres")}, {"metres", 2.0}};
  for (const int pixels : {300, 600}) {
    const ZoneCells cells = cellsFor(LineShape{pixels, 0.02});
    EXPECT_NEAR(cells.lengthAlong(Axis::Along, 0, 0), pixels * 0.02, 1e-6);
    const double from = brightestAt_m(run("comets", cells, 0.5, values), 0.02);
    const double to = brightestAt_m(run("comets", cells, 1.5, values), 0.02);
    EXPECT_NEAR(to - from, 2, 0.05) << pixels;
  }
}

TEST(Pace, InMetresTellsEverythingThatRuns) {
  const ZoneCells cells = cellsFor(LineShape{100, 0.05});
  for (const char* key : {"ribbon", "hue-wheel", "swell", "weave", "comets", "drizzle", "chase", "parade"}) {
    const auto at = [&](double t, double metres) {
      return run(key, cells, t, {{"pace", std::string("metres")}, {"metres", metres}}).r;
    };
    EXPECT_EQ(at(0.5, 0), at(2.5, 0)) << key << " stands at 0 metres a second";
    EXPECT_NE(at(0.5, 1), at(0.9, 1)) << key;
  }
}

TEST(Pace, AxesHaveTheirLengths) {
  const ZoneCells grid = cellsFor(GridShape{48, 16, 0.03, 0.05});
  EXPECT_NEAR(grid.lengthAlong(Axis::Columns, 0, 0), 48 * 0.03, 1e-6);
  EXPECT_NEAR(grid.lengthAlong(Axis::Rows, 0, 0), 16 * 0.05, 1e-6);
  const ZoneCells ring = cellsFor(ArcShape{60, 0.5, 0, 360});
  EXPECT_NEAR(ring.lengthAlong(Axis::Around, 0, 0), 2 * 3.14159 * 0.5, 0.01);
  EXPECT_GT(cellsFor(LineShape{1, 0.1}).lengthAlong(Axis::Along, 0, 0), 0) << "never 0";
}

/// Hard edges are on or off: no cell of a lone brick in flight is half lit.
TEST(HardEdges, KeepSteps) {
  const ZoneCells cells = cellsFor(LineShape{90, 0.02});
  const auto halves = [&](const char* key, bool isHard) {
    int found = 0;
    for (double t = 0.1; t < 2; t += 0.013)
      for (const float a : run(key, cells, t, {{"across", std::string("along")}, {"hard", isHard}}).a)
        found += a > 0.02f && a < 0.98f ? 1 : 0;
    return found;
  };
  for (const char* key : {"toss", "gauge"}) {
    EXPECT_GT(halves(key, false), 0) << key;
    EXPECT_EQ(halves(key, true), 0) << key;
  }
}

/// A zone of six lines that were named criss-cross: pieces are numbered from neighbour to neighbour.
TEST(Pieces, AreWalkedFromNeighbourToNeighbour) {
  Show show;
  Zone zone{ZoneId{100}, "All", {}, ZoneLayout::Strand, 1};
  for (const double x : {0.0, 3.0, 1.0, 5.0, 2.0, 4.0}) {
    const FixtureId line = addFixture(show, LineShape{4, 0.1}, {x * 2, 0, 0});
    zone.parts.push_back({line, std::nullopt, false});
  }
  const ZoneCells cells = cellsOf(show, mapPixels(show), zone);
  ASSERT_EQ(cells.pieces, 6);
  for (std::size_t i = 0; i < cells.piece.size(); ++i)
    EXPECT_EQ(cells.piece[i], static_cast<int>(std::lround((cells.position_m[i].x - 0.15) / 2))) << i;
  EXPECT_FLOAT_EQ(cells.alongPiece[0], 0.125f);
  EXPECT_FLOAT_EQ(cells.alongPiece[7], 0.875f);
}

/// In a canon each piece does what its neighbour did a beat before.
TEST(Canon, EachPieceComesInAfterItsNeighbour) {
  Show show;
  Zone zone{ZoneId{100}, "All", {}, ZoneLayout::Strand, 1};
  for (const double x : {0.0, 1.0, 2.0}) {
    const FixtureId line = addFixture(show, LineShape{4, 0.1}, {x, 0, 0});
    zone.parts.push_back({line, std::nullopt, false});
  }
  const ZoneCells cells = cellsOf(show, mapPixels(show), zone);
  const auto at = [&](double beats) {
    return run("canon", cells, beats * test::kTrialBeat_s, {{"later", 1.0}});
  };
  EXPECT_GT(at(0.4).a[0], 0.5f);
  EXPECT_EQ(at(0.4).a[4], 0) << "the second is still silent";
  for (const double beats : {1.2, 2.3, 5.1, 6.7}) {
    const LightBuffer before = at(beats), after = at(beats + 1);
    for (std::size_t i = 0; i < 8; ++i) EXPECT_NEAR(after.a[i + 4], before.a[i], 1e-4f) << beats;
  }
}

/// The hand is down on the first beat and up before the next bar.
TEST(Baton, BeatsTheFigureOfTheBar) {
  const ZoneCells cells = cellsFor(GridShape{21, 21, 0.05, 0.05});
  const auto heightAt = [&](double inBar) {
    const LightBuffer light = run("baton", cells, 1, {{"trail", 0.0}}, [inBar](EffectInput& in) {
      in.beatInBar = inBar;
      in.beatsOfBar = 4;
    });
    return cells.y[test::brightest(light)];
  };
  EXPECT_LT(heightAt(0), -0.6f);
  EXPECT_GT(heightAt(3), 0.4f);
}

TEST(Hourglass, RunsOutAsTheSectionEnds) {
  const ZoneCells cells = cellsFor(LineShape{100, 0.05});
  const auto sandBelow = [&](double share) {
    const LightBuffer light = run("hourglass", cells, 1, {{"across", std::string("along")}, {"glass", 0.0}},
                                  [share](EffectInput& in) { in.section = share; });
    int below = 0;
    for (std::size_t i = 0; i < 50; ++i) below += light.a[i] > 0.9f;
    int above = 0;
    for (std::size_t i = 51; i < 100; ++i) above += light.a[i] > 0.9f;
    return std::pair(below, above);
  };
  EXPECT_GT(sandBelow(0.02).second, 45);
  EXPECT_LT(sandBelow(0.98).second, 3);
  EXPECT_GT(sandBelow(0.98).first, 42);
}

/// What a score says of its sections reaches the effects.
TEST(Hourglass, KnowsTheScoresSections) {
  Show show;
  const FixtureId line = addFixture(show, LineShape{100, 0.05}, {});
  const PaletteId white = addPalette(show, "White", {{0, {255, 255, 255}}, {1, {255, 255, 255}}});
  const ScoreId score = addScore(show, "Song", {}, Micros(40'000'000));
  changeItem(show.scores, score, [](Score& s) {
    MarkLane lane;
    lane.kind = LaneKind::Sections;
    lane.marks.resize(2);
    lane.marks[1].at = Micros(10'000'000);
    s.lanes.push_back(lane);
  });
  addClip(show, score, show.zones.front()->id, "hourglass", white, Micros(0), Micros(40'000'000));
  (void)line;
  const auto compiled = compile(show);
  Renderer renderer;
  renderer.prepare(*compiled);
  PixelFrame frame;
  const auto topOf = [&](double t) {
    frame.resize(100);
    renderer.render(*compiled->scoreOf(score), micros(t), frame);
    return frame.r[95];
  };
  EXPECT_GT(topOf(0.2), 0.9f);
  EXPECT_LT(topOf(9.5), 0.2f) << "the first section is nearly over";
  EXPECT_GT(topOf(10.3), 0.9f) << "turned over";
  EXPECT_LT(topOf(39), 0.2f);
}

/// Light of another zone falls on what is near it, the nearer the brighter.
TEST(Spill, FallsOffWithRealDistance) {
  const ZoneCells lamp = cellsFor(LineShape{1, 0.1});
  LightBuffer light;
  light.resize(1);
  light.set(0, {1, 0.5f, 0}, 1);
  const ZoneCells cells = cellsFor(LineShape{50, 0.1});
  const LightBuffer seen = run("spill", cells, 1, {{"reach", 1.0}}, [&](EffectInput& in) {
    in.other = {&lamp, &light};
  });
  const double at_m = cells.position_m[0].x - lamp.position_m[0].x;
  std::size_t nearest = 0;
  for (std::size_t i = 0; i < 50; ++i)
    if (std::abs(cells.position_m[i].x - lamp.position_m[0].x) <
        std::abs(cells.position_m[nearest].x - lamp.position_m[0].x))
      nearest = i;
  (void)at_m;
  EXPECT_GT(seen.r[nearest], 0.9f);
  EXPECT_NEAR(seen.g[nearest], seen.r[nearest] / 2, 1e-3f);
  EXPECT_LT(seen.r[(nearest + 25) % 50], 0.1f);
}

/// A ball between the lamp and a piece is a shadow on it, and only on it.
TEST(Penumbra, ShadowsRunOverTheLight) {
  const ZoneCells cells = cellsFor(LineShape{100, 0.05});
  const auto dark = [&](double t) {
    const LightBuffer light = run("penumbra", cells, t, {{"apart", 40.0}, {"speed", 1.0}, {"size", 0.5}});
    std::set<std::size_t> found;
    for (std::size_t i = 0; i < 100; ++i)
      if (light.a[i] < 0.1f) found.insert(i);
    return found;
  };
  const auto first = dark(0), later = dark(0.5);
  ASSERT_FALSE(first.empty());
  EXPECT_LT(first.size(), 30u);
  ASSERT_FALSE(later.empty());
  // Half way between lamp and light a ball of half a metre, half a metre further, throws its shadow a metre
  // further.
  EXPECT_NEAR(static_cast<double>(*later.begin() - *first.begin()) * 0.05, 1, 0.15);
}

TEST(Footfall, StepsOnTheBeat) {
  const ZoneCells cells = cellsFor(LineShape{200, 0.02});
  const auto lightAt = [&](double beats) {
    return run("footfall", cells, beats * test::kTrialBeat_s,
               {{"stride", 0.5}, {"path", 4.0}, {"reach", 0.1}});
  };
  const auto brightestOf = [&](double beats) { return brightestAt_m(lightAt(beats), 0.02); };
  EXPECT_NEAR(brightestOf(3.3) - brightestOf(2.3), 0.5, 0.06) << "a stride each beat";
  EXPECT_NEAR(brightestOf(3.3), brightestOf(3.8), 0.03) << "and it stands in between";
}

}  // namespace
}  // namespace chispa
