// SPDX-License-Identifier: GPL-3.0-or-later
// What each effect of sparks, textures, music and pictures is known by.
#include <cmath>
#include <numeric>
#include <set>

#include "effecttrial.h"
#include <gtest/gtest.h>

#include "core/zone/closure.h"

namespace chispa {
namespace {

using test::brightest;
using test::cellsFor;
using test::kTrialBar_s;
using test::kTrialBeat_s;
using test::kTrialLength_s;
using test::meanLight;
using test::run;

TEST(Comets, AHeadIsBrightAheadAndDarkBehindItsTail) {
  const ZoneCells cells = cellsFor(LineShape{100, 0.02});
  const LightBuffer light = run("comets", cells, 3, {{"heads", 1.0}, {"passes", 0.25}, {"tail", 0.3}});
  // Two bars on, the head is at the middle; the tail reaches back 30 cells, and ahead is dark.
  EXPECT_GT(light.a[48], 0.8f);
  EXPECT_GT(light.a[48], light.a[35]);
  EXPECT_EQ(light.a[60], 0);
  EXPECT_EQ(light.a[10], 0);
}

/// An outline alone is seen through; a black rim sets the letters off from what lies below.
TEST(Lettering, IsAnOutlineAloneOrHasARimThatIsBrightDimOrBlack) {
  const ZoneCells cells = cellsFor(GridShape{24, 14, 0.05, 0.05});
  const auto written = [&](const char* rim) {
    return run("lettering", cells, 0,
               {{"text", std::string("I")}, {"rim", 0.15}, {"rim_is", std::string(rim)}, {"ground", 0.0}});
  };
  const LightBuffer filled = written("full"), black = written("black"), alone = written("alone"),
                    dim = written("dim");
  int letters = 0, rims = 0;
  for (std::size_t i = 0; i < filled.size(); ++i) {
    EXPECT_EQ(filled.a[i], black.a[i]) << "a black rim covers as much as a bright one";
    if (filled.a[i] == 0) continue;
    const bool isRim = black.r[i] + black.g[i] + black.b[i] == 0;
    (isRim ? rims : letters) += 1;
    if (isRim) {
      EXPECT_GT(alone.a[i], 0.9f);
      EXPECT_GT(filled.r[i], dim.r[i]) << "brighter than a dim one";
    } else if (black.a[i] == 1 && alone.a[i] == 0) {
      EXPECT_EQ(alone.r[i], 0) << "the letter itself is open";
    }
  }
  EXPECT_GT(letters, 5);
  EXPECT_GT(rims, 10);
  EXPECT_LT(meanLight(alone), meanLight(filled));
}

TEST(Glints, LightTheShareThatIsAskedFor) {
  const ZoneCells cells = cellsFor(LineShape{20'000, 0.01});
  for (const double density : {0.05, 0.4}) {
    const LightBuffer light = run("glints", cells, 3.3, {{"density", density}});
    EXPECT_NEAR(
        static_cast<double>(std::count_if(light.a.begin(), light.a.end(), [](float a) { return a > 0; })) /
            20'000,
        density, 0.02);
  }
}

TEST(Frost, IsEitherThereOrNot) {
  const ZoneCells cells = cellsFor(LineShape{20'000, 0.01});
  const LightBuffer light = run("frost", cells, 3.3, {{"density", 0.2}, {"length", 0.5}});
  EXPECT_EQ(std::set<float>(light.a.begin(), light.a.end()), (std::set<float>{0, 1}));
  EXPECT_NEAR(meanLight(light), 0.1, 0.01) << "a fifth of the cells, half of the time";
}

TEST(Hearth, IsHotterAtTheFoot) {
  const ZoneCells cells = cellsFor(GridShape{20, 20, 0.05, 0.05});
  double foot = 0, top = 0;
  for (double t = 0; t < 6; t += 0.31) {
    const LightBuffer light = run("hearth", cells, t);
    for (std::size_t i = 0; i < light.size(); ++i) {
      const float height = cells.along(Axis::Rows)[i];
      if (height < 0.3f) foot += static_cast<double>(light.a[i]);
      if (height > 0.7f) top += static_cast<double>(light.a[i]);
    }
  }
  EXPECT_GT(foot, 1.5 * top);
}

TEST(Drizzle, FallsAtItsPace) {
  const ZoneCells cells = cellsFor(LineShape{200, 0.05});
  const ParamValues values = {
      {"across", std::string("along")}, {"drops", 1.0}, {"speed", 0.5}, {"uneven", 0.0}, {"tail", 0.3}};
  const auto height = [&](double t) {
    return static_cast<double>(brightest(run("drizzle", cells, t, values))) / 200;
  };
  double fallen = 0;
  for (int i = 0; i < 10; ++i) {
    const double by = height(i * 0.1) - height((i + 1) * 0.1);
    fallen += by < -0.5 ? by + 1 : by;
  }
  EXPECT_NEAR(fallen, 0.5, 0.02) << "half of the zone in a second, downward";
}

/// A drop falls head first: below its head is dark, above it the tail.
TEST(Drizzle, ADropFallsHeadFirst) {
  const ZoneCells cells = cellsFor(LineShape{200, 0.05});
  const LightBuffer light =
      run("drizzle", cells, 1.9,
          {{"across", std::string("along")}, {"drops", 1.0}, {"speed", 0.5}, {"uneven", 0.0}, {"tail", 0.3}});
  const std::size_t head = brightest(light);
  ASSERT_GT(head, 30u);
  ASSERT_LT(head, 170u);
  EXPECT_LT(light.a[head - 20], 0.05f) << "below";
  EXPECT_GT(light.a[head + 15], 0.2f) << "above";
}

TEST(Snowfall, FallsAndLiesUpToItsHeight) {
  const ZoneCells cells = cellsFor(GridShape{24, 24, 0.05, 0.05});
  const auto at = [&](double t, double lying) {
    return run("snowfall", cells, t, {{"drift", 0.0}, {"speed", 1.0}, {"lying", lying}});
  };
  // What was above is here a moment later, more than what was below.
  double fromAbove = 0, fromBelow = 0;
  for (double t = 0; t < 4; t += 0.4) {
    const LightBuffer now = at(t, 0), later = at(t + 0.07, 0);
    for (int column = 0; column < 24; ++column)
      for (int row = 1; row < 23; ++row) {
        const float here = later.a[cells.cellAt(column, row)];
        fromAbove += static_cast<double>(here * now.a[cells.cellAt(column, row + 1)]);
        fromBelow += static_cast<double>(here * now.a[cells.cellAt(column, row - 1)]);
      }
  }
  EXPECT_GT(fromAbove, 1.05 * fromBelow);
  const LightBuffer end = at(kTrialLength_s, 0.5);
  for (int row = 0; row < 11; ++row) EXPECT_GE(end.a[cells.cellAt(7, row)], 0.6f) << row;
  const auto topDark = std::count_if(end.a.begin(), end.a.end(), [](float a) { return a < 0.1f; });
  EXPECT_GT(topDark, 50) << "above it the sky is dark between flakes";
}

TEST(Toss, BouncesLowerByItsSpringiness) {
  const ZoneCells cells = cellsFor(LineShape{400, 0.05});
  const double springy = 0.8;
  const auto height = [&](double t) {
    return static_cast<double>(brightest(run("toss", cells, t,
                                             {{"across", std::string("along")},
                                              {"balls", 1.0},
                                              {"bounces", 0.5},
                                              {"springy", springy},
                                              {"size", 0.02}}))) /
           400;
  };
  std::vector<double> tops;
  double before = height(0), now = height(0.02);
  for (double t = 0.04; t < 40; t += 0.02) {
    const double next = height(t);
    if (now > before && now >= next && now > 0.06) tops.push_back(now);
    before = now, now = next;
  }
  int falling = 0;
  for (std::size_t i = 0; i + 1 < tops.size(); ++i) {
    if (tops[i + 1] > tops[i]) continue;
    EXPECT_NEAR(tops[i + 1] / tops[i], springy * springy, 0.06)
        << "the height goes with the square of the speed";
    ++falling;
  }
  EXPECT_GE(falling, 4);
}

TEST(Rockets, RiseBurstAndBurnOut) {
  const ZoneCells cells = cellsFor(GridShape{40, 40, 0.05, 0.05});
  const auto at = [&](double t) {
    return run("rockets", cells, t, {{"every", 16.0}, {"rise", 0.5}, {"burn", 1.0}});
  };
  EXPECT_LT(cells.y[brightest(at(0.1))], cells.y[brightest(at(0.3))]);
  EXPECT_GT(meanLight(at(0.9)), 3 * meanLight(at(0.3))) << "a sphere after a spark";
  EXPECT_EQ(meanLight(at(1.6)), 0);
}

TEST(Fireflies, GlowGoOutAndWanderWithoutJumps) {
  const ZoneCells cells = cellsFor(GridShape{30, 30, 0.05, 0.05});
  double least = 1, most = 0;
  std::optional<std::size_t> last;
  for (double t = 0; t < 8; t += 0.02) {
    const LightBuffer light =
        run("fireflies", cells, t, {{"flies", 1.0}, {"glow", 2.0}, {"wander", 0.3}, {"size", 0.3}});
    const std::size_t at = brightest(light);
    least = std::min(least, static_cast<double>(light.a[at]));
    most = std::max(most, static_cast<double>(light.a[at]));
    const bool isSeen = light.a[at] > 0.3f;
    if (isSeen && last) {
      EXPECT_LT(std::hypot(cells.x[at] - cells.x[*last], cells.y[at] - cells.y[*last]), 0.15f);
    }
    last = isSeen ? std::optional(at) : std::nullopt;
  }
  EXPECT_EQ(least, 0);
  EXPECT_GT(most, 0.7);
}

TEST(Clouds, DriftOnUnchanged) {
  const ZoneCells cells = cellsFor(LineShape{201, 0.05});
  const ParamValues values = {{"detail", 0.0}, {"speed", 1.0}, {"way", 0.0}};
  // Cells are a hundredth of a half apart.
  const LightBuffer now = run("clouds", cells, 1, values);
  const LightBuffer later = run("clouds", cells, 1.1, values);
  for (std::size_t i = 0; i + 10 < now.size(); ++i) EXPECT_NEAR(now.b[i], later.b[i + 10], 0.01f) << i;
}

TEST(Marbling, FlowsSmoothlyAndCoversAll) {
  const ZoneCells cells = cellsFor(LineShape{400, 0.02});
  const LightBuffer light = run("marbling", cells, 1.2, {{"repeats", 0.5}});
  EXPECT_EQ(meanLight(light), 1);
  const LightBuffer soon = run("marbling", cells, 1.21, {{"repeats", 0.5}});
  for (std::size_t i = 0; i < 400; ++i) EXPECT_NEAR(light.g[i], soon.g[i], 0.1f) << i;
  const LightBuffer other =
      run("marbling", cells, 1.2, {{"repeats", 0.5}}, [](EffectInput& in) { in.seed = 77; });
  EXPECT_NE(light.g, other.g);
}

TEST(Mosaic, IsMadeOfStonesOfOneColourEach) {
  const ZoneCells cells = cellsFor(GridShape{40, 40, 0.05, 0.05});
  const LightBuffer light = run("mosaic", cells, 1, {{"joint", 0.0}, {"shimmer", 0.0}, {"stones", 2.0}});
  EXPECT_EQ(meanLight(light), 1);
  std::set<std::tuple<float, float, float>> colours;
  for (std::size_t i = 0; i < light.size(); ++i) colours.insert({light.r[i], light.g[i], light.b[i]});
  EXPECT_LT(colours.size(), 60u);
  EXPECT_GT(colours.size(), 8u);
  const LightBuffer jointed = run("mosaic", cells, 1, {{"joint", 0.5}, {"shimmer", 0.0}, {"stones", 2.0}});
  EXPECT_LT(*std::min_element(jointed.a.begin(), jointed.a.end()), 0.1f);
}

TEST(Pool, IsDarkerByItsDepthAndGlitters) {
  const ZoneCells cells = cellsFor(GridShape{30, 30, 0.05, 0.05});
  EXPECT_EQ(meanLight(run("pool", cells, 1, {{"depth", 0.0}})), 1);
  EXPECT_LT(meanLight(run("pool", cells, 1, {{"depth", 1.0}})), 0.9);
  const LightBuffer dull = run("pool", cells, 1, {{"glitter", 0.0}});
  const LightBuffer bright = run("pool", cells, 1, {{"glitter", 1.0}});
  EXPECT_LT(std::accumulate(bright.r.begin(), bright.r.end(), 0.f),
            std::accumulate(dull.r.begin(), dull.r.end(), 0.f))
      << "crests reach the palette's end";
}

TEST(Storm, StrikesNowAndThenOutOfTheDark) {
  const ZoneCells cells = cellsFor(GridShape{20, 20, 0.05, 0.05});
  int strikes = 0, dark = 0, looks = 0;
  bool wasLit = false;
  for (double t = 0; t < 60; t += 0.02, ++looks) {
    const bool isLit = meanLight(run("storm", cells, t, {{"strikes", 0.5}, {"length", 0.3}})) > 0;
    strikes += isLit && !wasLit ? 1 : 0;
    dark += isLit ? 0 : 1;
    wasLit = isLit;
  }
  EXPECT_NEAR(strikes, 30, 4);
  EXPECT_GT(dark, looks * 0.7);
}

TEST(Bloom, IsBrightestOnTheBeatAndFades) {
  const ZoneCells cells = cellsFor(LineShape{5, 0.1});
  const auto at = [&](double t) { return run("bloom", cells, t).a[2]; };
  EXPECT_GT(at(0.0), 0.95f);
  EXPECT_GT(at(0.0), at(0.2));
  EXPECT_GT(at(0.5), at(0.45));
  EXPECT_GT(at(0.0), at(0.5)) << "the first beat of a bar is accented";
}

TEST(Loudness, StandsAsHighAsItIsLoud) {
  const ZoneCells cells =
      cellsFor(GridShape{4, 20, 0.05, 0.05, Corner::BottomLeft, GridRuns::AlongRows, false});
  const LightBuffer light =
      run("loudness", cells, 1, {{"shows", std::string("level")}, {"gain", 1.0}, {"edge", 0.001}});
  const auto lit = std::count_if(light.a.begin(), light.a.end(), [](float a) { return a > 0.5f; });
  EXPECT_EQ(lit, 12 * 4) << "level 0.6 of 20 rows on 4 columns";
}

TEST(Carillon, SoundsAtAnOnsetAndRunsFromItsPlace) {
  const ZoneCells cells = cellsFor(LineShape{200, 0.05});
  MusicFeatures music;
  music.onsets[2] = {micros(2)};
  const auto at = [&](double t) {
    return run("carillon", cells, t, {{"speed", 0.2}, {"length", 1.0}},
               [&](EffectInput& in) { in.music = &music; });
  };
  const auto lit = [&](double t) {
    const LightBuffer light = at(t);
    return std::count_if(light.a.begin(), light.a.end(), [](float a) { return a > 0; });
  };
  EXPECT_EQ(lit(1.99), 0);
  EXPECT_GT(lit(2.02), 0);
  EXPECT_GT(lit(2.5), lit(2.02) + 20);
  EXPECT_EQ(lit(3.05), 0);
}

/// On a ring a note runs over the joint as it runs anywhere: wherever it is struck, the light is the same
/// one, turned.
TEST(Carillon, RunsOnOverTheJointOfARing) {
  MusicFeatures music;
  music.onsets[2] = {micros(2)};
  const auto sums = [&](const ZoneCells& cells) {
    std::vector<double> found;
    for (std::uint32_t seed = 1; seed <= 12; ++seed)
      found.push_back(meanLight(run("carillon", cells, 2.4,
                                    {{"speed", 0.9}, {"length", 2.0}, {"notes", 48.0}}, [&](EffectInput& in) {
                                      in.music = &music;
                                      in.seed = seed;
                                    })));
    const auto [least, most] = std::minmax_element(found.begin(), found.end());
    return *most - *least;
  };
  EXPECT_LT(sums(cellsFor(ArcShape{48, 0.5})), 1e-5);
  EXPECT_GT(sums(cellsFor(LineShape{48, 0.05})), 0.05) << "on a line it runs out at the ends";
}

TEST(Closure, IsWhereTheLastCellLiesBesideTheFirst) {
  EXPECT_TRUE(isClosed(cellsFor(ArcShape{24, 0.3}), Axis::Along));
  EXPECT_FALSE(isClosed(cellsFor(ArcShape{24, 0.3, 0, 270}), Axis::Along));
  EXPECT_FALSE(isClosed(cellsFor(LineShape{24, 0.05}), Axis::Along));
  EXPECT_FALSE(isClosed(cellsFor(LineShape{2, 0.05}), Axis::Along)) << "two lie beside each other";
  EXPECT_TRUE(isClosed(cellsFor(LineShape{24, 0.05}), Axis::Around)) << "an angle always is";
  const ZoneCells matrix = cellsFor(GridShape{12, 8, 0.05, 0.05});
  EXPECT_FALSE(isClosed(matrix, Axis::Columns));
  EXPECT_FALSE(isClosed(matrix, Axis::Rows));
  EXPECT_FLOAT_EQ(apart(0.1f, 0.9f, true), 0.2f);
  EXPECT_FLOAT_EQ(apart(0.1f, 0.9f, false), 0.8f);
}

/// A burst of sound passes along a line, and up and down a matrix, without a step.
TEST(Skyline, GlidesUnlessItIsToBeHard) {
  const ZoneCells cells = cellsFor(LineShape{24, 0.05});
  MusicFeatures music;
  music.level.assign(1000, 0.f);
  for (std::size_t burst = 100; burst < 900; burst += 100)
    std::fill(music.level.begin() + static_cast<std::ptrdiff_t>(burst),
              music.level.begin() + static_cast<std::ptrdiff_t>(burst) + 40, 0.9f);
  const auto largestStep = [&](bool hard) {
    float largest = 0;
    std::vector<float> before;
    for (int frame = 120; frame < 240; ++frame) {
      const LightBuffer light =
          run("skyline", cells, frame / 40.0,
              {{"across", std::string("along")}, {"window", 2.0}, {"gain", 1.0}, {"hard", hard}},
              [&](EffectInput& in) { in.music = &music; });
      for (std::size_t i = 0; i < before.size(); ++i)
        largest = std::max(largest, std::abs(light.a[i] - before[i]));
      before.assign(light.a.begin(), light.a.begin() + 24);
    }
    return largest;
  };
  EXPECT_GT(largestStep(true), 0.8f);
  EXPECT_LT(largestStep(false), 0.45f);
}

TEST(Skyline, MovesWhatWasHeardFromTheEndToTheBeginning) {
  const ZoneCells cells = cellsFor(LineShape{200, 0.05});
  MusicFeatures music;
  // A short sound at the third second.
  music.level.assign(1000, 0.f);
  std::fill(music.level.begin() + 300, music.level.begin() + 320, 1.f);
  const auto middle = [&](double t) {
    const LightBuffer light =
        run("skyline", cells, t, {{"across", std::string("along")}, {"window", 2.0}, {"gain", 1.0}},
            [&](EffectInput& in) { in.music = &music; });
    double sum = 0, weighed = 0;
    for (std::size_t i = 0; i < 200; ++i)
      sum += static_cast<double>(light.a[i]),
          weighed += static_cast<double>(light.a[i]) * static_cast<double>(cells.along(Axis::Along)[i]);
    return sum > 0 ? weighed / sum : -1;
  };
  EXPECT_EQ(middle(2.9), -1);
  EXPECT_NEAR(middle(3.5), 1 - 0.4 / 2, 0.02);
  EXPECT_NEAR(middle(4.5), 1 - 1.4 / 2, 0.02);
  EXPECT_EQ(middle(5.3), -1);
}

TEST(Lettering, StandsInTheMiddleOrPassesToTheLeft) {
  const ZoneCells cells = cellsFor(GridShape{60, 8, 0.05, 0.05});
  const auto middle = [&](double t, const char* moves) {
    const LightBuffer light =
        run("lettering", cells, t, {{"text", std::string("HOOP")}, {"moves", std::string(moves)}});
    double sum = 0, weighed = 0;
    for (std::size_t i = 0; i < light.size(); ++i)
      sum += static_cast<double>(light.a[i]), weighed += static_cast<double>(light.a[i]) * cells.column[i];
    EXPECT_GT(sum, 20);
    return weighed / sum;
  };
  EXPECT_NEAR(middle(0.2, "stand"), 29.5, 3);
  EXPECT_EQ(middle(0.2, "stand"), middle(3, "stand"));
  EXPECT_GT(middle(2, "pass"), middle(3, "pass"));
  const LightBuffer ground = run("lettering", cells, 0, {{"text", std::string("I")}, {"ground", 1.0}});
  EXPECT_NEAR(meanLight(ground), 1, 1e-6) << "the ground covers what lies below";
}

TEST(Drawing, ShowsItsFramesInTurnAndIsClearWhereNothingIsDrawn) {
  const ZoneCells cells = cellsFor(GridShape{2, 2, 0.05, 0.05});
  const ParamValues values = {
      {"dots", std::string("2x2|0...|...0")}, {"pictures", 1.0}, {"fit", std::string("stretch")}};
  const LightBuffer first = run("drawing", cells, 0.1, values);
  const LightBuffer second = run("drawing", cells, 0.1 + kTrialBeat_s, values);
  EXPECT_EQ(first.a[cells.cellAt(0, 1)], 1) << "drawn from the top";
  EXPECT_EQ(second.a[cells.cellAt(1, 0)], 1);
  EXPECT_EQ(meanLight(first), 0.25);
  EXPECT_EQ(meanLight(second), 0.25);
}

TEST(Picture, LiesOnTheZoneAsItIs) {
  const ZoneCells cells = cellsFor(GridShape{4, 4, 0.05, 0.05});
  MediaLibrary media;
  media.add("four.png", std::make_shared<Media>(
                            Media{2, 2, 0, 1, {255, 0, 0, 255, 0, 255, 0, 255, 0, 0, 255, 255, 0, 0, 0, 0}}));
  const LightBuffer light = run(*findEffect("picture"), cells, 0,
                                {{"file", std::string("four.png")}, {"fit", std::string("stretch")}}, media);
  EXPECT_EQ(light.r[cells.cellAt(0, 3)], 1) << "the first dot is at the top left";
  EXPECT_EQ(light.g[cells.cellAt(3, 3)], 1);
  EXPECT_EQ(light.b[cells.cellAt(0, 0)], 1);
  EXPECT_EQ(light.a[cells.cellAt(3, 0)], 0) << "what is clear stays clear";
}

TEST(Echo, ShowsTheOtherZoneTurnedRoundAndAtItsLevel) {
  const ZoneCells cells = cellsFor(LineShape{5, 0.05});
  LightBuffer light;
  light.resize(5);
  for (std::size_t i = 0; i < 5; ++i) light.set(i, {static_cast<float>(i) / 4, 0, 0}, 1);
  const LightBuffer shown = run("echo", cells, 1, {{"mirrored", true}, {"level", 0.5}}, [&](EffectInput& in) {
    in.other = {&cells, &light};
  });
  for (std::size_t i = 0; i < 5; ++i) EXPECT_FLOAT_EQ(shown.r[i], light.r[4 - i] / 2) << i;
}

TEST(FormulaEffect, LightsWhatItsFormulaSays) {
  const ZoneCells cells = cellsFor(LineShape{11, 0.05});
  const LightBuffer light =
      run("formula", cells, 1, {{"formula", std::string("light = across * a")}, {"a", 0.5}});
  for (std::size_t i = 0; i < 11; ++i) EXPECT_NEAR(light.a[i], 0.5f * cells.along(Axis::Along)[i], 1e-5f);
}

}  // namespace
}  // namespace chispa
