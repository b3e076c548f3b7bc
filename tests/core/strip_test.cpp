// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/show/strip.h"

#include "carousel/carousel.h"
#include <gtest/gtest.h>

#include "core/check/cutlist.h"
#include "core/edit/planedits.h"
#include "core/edit/wireedits.h"
#include "core/wire/power.h"
#include "core/wire/powernet.h"

namespace chispa {
namespace {

StripType cutEvery(int pixels) {
  StripType strip;
  strip.pixelsPerCut = pixels;
  return strip;
}

const StripType kPlain = cutEvery(1);

TEST(Strip, AnyTwoOfPixelsLengthAndPitchGiveTheThird) {
  const Segment line{"line", LineShape{60, 1.0 / 60}, {}};
  Segment s = line;
  setRunPixels(s, 90, kPlain, Follows::Length);
  EXPECT_NEAR(runLength_m(s), 1.5, 1e-9);
  s = line;
  setRunPixels(s, 90, kPlain, Follows::PerMetre);
  EXPECT_NEAR(runLength_m(s), 1, 1e-9);
  EXPECT_NEAR(pitch_m(s), 1.0 / 90, 1e-9);
  s = line;
  setRunLength(s, 2, kPlain, Follows::Pixels);
  EXPECT_EQ(runPixels(s), 120);
  s = line;
  setRunLength(s, 2, kPlain, Follows::PerMetre);
  EXPECT_EQ(runPixels(s), 60);
  EXPECT_NEAR(pitch_m(s), 1.0 / 30, 1e-9);
  s = line;
  setPitch(s, 0.01, kPlain, Follows::Length);
  EXPECT_NEAR(runLength_m(s), 0.6, 1e-9);
  s = line;
  setPitch(s, 0.01, kPlain, Follows::Pixels);
  EXPECT_EQ(runPixels(s), 100);
  EXPECT_NEAR(runLength_m(s), 1, 1e-9);
}

TEST(Strip, CountsComeOutAsTheStripCanBeCut) {
  const StripType threes = cutEvery(3);
  for (const auto& [wanted, legal] : {std::pair(1, 3), {4, 3}, {5, 6}, {24, 24}, {25, 24}, {26, 27}})
    EXPECT_EQ(cuttableCount(threes, wanted), legal) << wanted;
  Segment s{"line", LineShape{60, 1.0 / 60}, {}};
  setRunPixels(s, 25, threes, Follows::Length);
  EXPECT_EQ(runPixels(s), 24);
  setRunLength(s, 0.5, threes, Follows::Pixels);
  EXPECT_EQ(runPixels(s) % 3, 0);
}

TEST(Strip, ALongerArcGrowsAndAPathTakesMorePixels) {
  Segment arc{"arc", ArcShape{100, 1, 0, 180}, {}};
  setRunLength(arc, 2 * kPi, kPlain, Follows::PerMetre);
  EXPECT_NEAR(std::get<ArcShape>(arc.shape).radius_m, 2, 1e-9);
  EXPECT_EQ(runPixels(arc), 100);
  Segment path{"path", PathShape{10, {{0, 0, 0}, {2, 0, 0}}, false}, {}};
  EXPECT_FALSE(hasFreeLength(path));
  setPitch(path, 0.01, kPlain, Follows::Length);
  EXPECT_EQ(runPixels(path), 200);
  EXPECT_NEAR(runLength_m(path), 2, 1e-9);
}

TEST(Strip, AGridOfAnyCountHasAShortLastStrip) {
  for (const GridRuns runs : {GridRuns::AlongRows, GridRuns::AlongColumns})
    for (int wanted = 1; wanted < 60; ++wanted) {
      GridShape grid{12, 5, 0.1, 0.1, Corner::TopLeft, runs, true};
      grid.holes = {{0, 0}, {2, 3}};
      setGridPixels(grid, wanted);
      EXPECT_EQ(pixelCount(Shape(grid)), wanted);
      EXPECT_LT(grid.missing, runs == GridRuns::AlongRows ? grid.columns : grid.rows);
    }
}

TEST(Grid, DataPassesOverHolesAndStopsWhereTheLastRowEnds) {
  GridShape grid{3, 2, 1, 1, Corner::BottomLeft, GridRuns::AlongRows, true};
  grid.missing = 1;
  grid.holes = {{0, 1}};
  EXPECT_EQ(matrixCells(grid), (std::vector<GridCell>{{0, 0}, {0, 2}, {1, 2}, {1, 1}}));
  EXPECT_EQ(pixelCount(Shape(grid)), 4);
  EXPECT_EQ(localPositions(grid).size(), 4u);
}

TEST(OffReel, TellsPiecesWhoseLedsStandOtherwise) {
  Show show;
  StripType type;
  type.id = show.newId<StripTypeId>();
  type.pixelsPerMetre = 60;
  type.pixelsPerCut = 3;
  put(show.stripTypes, type);
  // The rim of a roof: 300 pixels on 18.85 m; a strip of 60 a metre has them on 5 m.
  Fixture rim{show.newId<FixtureId>(), "Rim", type.id, {}, {{"r", ArcShape{300, 3, 0, 360}, {}}}};
  const auto off = offReel(show, rim);
  ASSERT_TRUE(off);
  EXPECT_EQ(off->pixels, 300);
  EXPECT_NEAR(off->length_m, 18.85, 0.01);
  EXPECT_NEAR(off->reel_m, 5, 1e-9);
  EXPECT_EQ(off->fits % 3, 0) << "to a whole cut";
  EXPECT_NEAR(off->fits, 18.85 * 60, 3);
  const Fixture line{show.newId<FixtureId>(), "Line", type.id, {}, {{"l", LineShape{120, 1 / 60.0}, {}}}};
  EXPECT_FALSE(offReel(show, line));
  // A grid is looked at strip by strip.
  const Fixture grid{show.newId<FixtureId>(), "Grid", type.id, {}, {{"g", GridShape{30, 8, 0.05, 0.1}, {}}}};
  EXPECT_TRUE(offReel(show, grid));
  for (const StripBuild build : {StripBuild::String, StripBuild::Panel}) {
    changeItem(show.stripTypes, type.id, [build](StripType& s) { s.build = build; });
    EXPECT_FALSE(offReel(show, rim));
  }
}

TEST(OffReel, TheDemoIsPhysicallyTrue) {
  const Show show = demo::carousel();
  for (const auto& fixture : show.fixtures) EXPECT_FALSE(offReel(show, *fixture)) << fixture->name;
}

/// 300 pixels of a 60-a-metre reel, in cuts of four, along 7.5 m: five metres are bought, and the copper is
/// counted as far as the pixels lie apart.
TEST(CutList, CountsTheStripThatIsReallyBought) {
  Show show;
  StripType strip = cutEvery(4);
  const StripTypeId type = strip.id = show.newId<StripTypeId>();
  put(show.stripTypes, strip);
  const FixtureId line = addFixture(show, LineShape{299, 0.025}, {}, {}, type);
  const auto list = cutList(show);
  ASSERT_EQ(list.size(), 1u);
  EXPECT_NEAR(list[0].reel_m, 300 / 60.0, 1e-9);
  EXPECT_NEAR(list[0].length_m, 299 * 0.025, 1e-3);
  EXPECT_FALSE(agreesWithReel(list[0]));
  const auto pitchOf = [&] {
    return copperPitches_m(stripTypeOf(show, *show.fixtures[0]), *find(show.fixtures, line)).at(0);
  };
  EXPECT_NEAR(pitchOf(), 0.025, 1e-6);
  changeItem(show.stripTypes, type, [](StripType& s) { s.pixelsPerMetre = 20; });
  EXPECT_NEAR(pitchOf(), 0.05, 1e-9) << "as much strip as is bought, however it lies";
  changeItem(show.stripTypes, type, [](StripType& s) { s.build = StripBuild::String; });
  EXPECT_NEAR(pitchOf(), 0.025, 1e-6);
  EXPECT_EQ(cutList(show)[0].reel_m, 0) << "strings are bought by the pixel";
}

/// A string whose lamps are twice as far apart drops twice the voltage at the same current.
TEST(VoltageDrop, GoesByTheCopperThatIsReallyThere) {
  const auto dropOf = [](double pitch_m) {
    Show show;
    StripType strip;
    strip.id = show.newId<StripTypeId>();
    strip.build = StripBuild::String;
    put(show.stripTypes, strip);
    const FixtureId line = addFixture(show, LineShape{50, pitch_m}, {}, {}, strip.id);
    const ControllerId box = addController(show, 1);
    hang(show, {line, 0, 50}, {box, 0, 0});
    const auto chains = powerChains(show);
    double sum = 0;
    for (const PowerNode& node : chains.at(0).nodes) sum += node.ohmsBefore;
    return sum;
  };
  EXPECT_NEAR(dropOf(0.2), 2 * dropOf(0.1), 1e-9);
}

TEST(CutList, LikePiecesAreCountedTogether) {
  const Show show = demo::carousel();
  const auto list = cutList(show);
  const auto piece = [&](int pixels, int mm) {
    return std::count_if(list.begin(), list.end(),
                         [&](const CutPiece& p) {
                           return p.pixels == pixels && std::lround(p.length_m * 1000) == mm;
                         }) == 1
               ? std::find_if(list.begin(), list.end(),
                              [&](const CutPiece& p) {
                                return p.pixels == pixels && std::lround(p.length_m * 1000) == mm;
                              })
                     ->count
               : 0;
  };
  EXPECT_EQ(piece(26, 2600), 12) << "shafts";
  EXPECT_EQ(piece(20, 1800), 96) << "strips of the eight panels";
  EXPECT_EQ(piece(48, 1680), 16) << "rows of the sign";
  int pixels = 0;
  for (const CutPiece& p : list) pixels += p.pixels * p.count;
  EXPECT_EQ(pixels, 4046 - 14) << "all but the lamps, which are no strip";
}

}  // namespace
}  // namespace chispa
