// SPDX-License-Identifier: GPL-3.0-or-later
#include <set>

#include "carousel/carousel.h"
#include <gtest/gtest.h>

#include "core/edit/planedits.h"
#include "core/edit/zoneedits.h"
#include "core/files/showjson.h"
#include "core/zone/cells.h"
#include "core/zone/partpixels.h"

namespace chispa {
namespace {

class Dividing : public testing::Test {
 protected:
  ZoneId named(const std::string& name) const { return findNamed(show_.zones, name)->id; }
  const Zone& zone(ZoneId id) const { return *find(show_.zones, id); }
  ZoneCells cells(ZoneId id) const { return cellsOf(show_, map_, zone(id)); }
  std::set<std::uint32_t> pixels(ZoneId id) const {
    const ZoneCells all = cells(id);
    return {all.pixels.begin(), all.pixels.end()};
  }
  /// Rows and columns of a grid of its own, 12 × 20, serpentine.
  ZoneId panel() { return addZone(show_, "Panel", {findNamed(show_.fixtures, "Panel 3")->id}); }

  Show show_ = demo::carousel();
  PixelMap map_ = mapPixels(show_);
};

TEST_F(Dividing, RowsRunFromLeftToRightAndStandBottomUp) {
  const auto rows = divideZone(show_, panel(), {Division::Rows, 2, "Row"});
  ASSERT_EQ(rows.size(), 20u);
  EXPECT_EQ(zone(rows[0]).name, "Row 1");
  double below = -1;
  for (const ZoneId row : rows) {
    const ZoneCells line = cells(row);
    ASSERT_EQ(line.count(), 12);
    for (const Vec3& p : line.position_m) EXPECT_NEAR(p.z, line.position_m[0].z, 1e-9);
    EXPECT_GT(line.position_m[0].z, below);
    below = line.position_m[0].z;
    for (int i = 1; i < 12; ++i)
      EXPECT_NEAR(length(line.position_m[static_cast<std::size_t>(i)] -
                         line.position_m[static_cast<std::size_t>(i - 1)]),
                  0.06, 1e-9);
  }
}

/// Every division takes each pixel of the zone once.
TEST_F(Dividing, PiecesMakeTheWholeAgain) {
  for (const std::string name : {"Column", "Canopy rim", "Posts", "Lanterns", "Booth sign", "Everything"})
    for (const Division by :
         {Division::Rows, Division::Columns, Division::Parts, Division::ColumnParts, Division::RowParts,
          Division::Segments, Division::Fixtures, Division::EveryNth}) {
      const Show before = show_;
      const auto made = divideZone(show_, named(name), {by, 7});
      std::set<std::uint32_t> all;
      std::size_t sum = 0;
      for (const ZoneId id : made) {
        const auto part = pixels(id);
        sum += part.size();
        all.insert(part.begin(), part.end());
      }
      EXPECT_EQ(all, pixels(named(name))) << name;
      EXPECT_EQ(sum, all.size()) << name;
      EXPECT_EQ(piecesOf(before, *findNamed(before.zones, name), {by, 7}), std::ssize(made));
      show_ = before;
    }
}

TEST_F(Dividing, PartsOfAGridKeepTheirGrid) {
  const auto quarters = divideZone(show_, named("Column"), {Division::ColumnParts, 4, "Face"});
  ASSERT_EQ(quarters.size(), 4u);
  for (const ZoneId id : quarters) {
    EXPECT_EQ(cells(id).columns, 24);
    EXPECT_EQ(cells(id).rows, 20);
  }
  const auto halves = divideZone(show_, panel(), {Division::RowParts, 2});
  EXPECT_EQ(cells(halves[1]).columns, 12);
  EXPECT_EQ(cells(halves[1]).rows, 10);
}

TEST_F(Dividing, EveryNthTakesEveryNth) {
  const auto thirds = divideZone(show_, named("Canopy rim"), {Division::EveryNth, 3});
  ASSERT_EQ(thirds.size(), 3u);
  const auto second = cells(thirds[1]).pixels;
  for (std::size_t i = 0; i < second.size(); ++i) EXPECT_EQ(second[i], 1 + 3 * i);
  EXPECT_EQ(zone(thirds[1]).parts[0].runs, (std::vector<PixelRun>{{1, 100, 3}}));
}

TEST_F(Dividing, PiecesCanBeCellsOfOneZone) {
  const auto made =
      divideZone(show_, named("Canopy rim"), {Division::Parts, 12, "Rim lamps", Numbering::Plain, true});
  ASSERT_EQ(made.size(), 1u);
  EXPECT_EQ(cells(made[0]).count(), 12);
  EXPECT_EQ(cells(made[0]).pixelsOf(0).size(), 25u);
}

TEST_F(Dividing, NamesAreNumberedAsWished) {
  EXPECT_EQ(numberedName("Post", 6, 12, Numbering::Plain), "Post 7");
  EXPECT_EQ(numberedName("Post", 6, 12, Numbering::Padded), "Post 07");
  EXPECT_EQ(numberedName("Post", 6, 120, Numbering::Padded), "Post 007");
  EXPECT_EQ(numberedName("Post", 0, 12, Numbering::Letters), "Post A");
  EXPECT_EQ(numberedName("Post", 27, 30, Numbering::Letters), "Post AB");
}

TEST_F(Dividing, MirroredHalvesPlayAsOne) {
  const ZoneId mirrored = mirrorZone(show_, named("Canopy rim"));
  const ZoneCells both = cells(mirrored);
  ASSERT_EQ(both.count(), 150);
  for (int i = 0; i < 150; ++i) {
    const auto pair = both.pixelsOf(i);
    ASSERT_EQ(pair.size(), 2u);
    EXPECT_EQ(pair[0], static_cast<std::uint32_t>(i));
    EXPECT_EQ(pair[1], static_cast<std::uint32_t>(299 - i));
  }
  const auto quarters = divideZone(show_, mirrored, {Division::Parts, 3});
  ASSERT_EQ(quarters.size(), 3u);
  EXPECT_EQ(cells(quarters[0]).count(), 50);
  EXPECT_EQ(cells(quarters[0]).pixelsOf(0)[1], 299u);
}

TEST_F(Dividing, PanelsThatPlayAsOneShowOnePicture) {
  Zone same = zone(named("Column"));
  same.playsAsOne = true;
  const ZoneId id = addZone(show_, same);
  EXPECT_EQ(cells(id).columns, 12);
  EXPECT_EQ(cells(id).count(), 240);
  EXPECT_EQ(cells(id).pixelsOf(0).size(), 8u);
}

TEST_F(Dividing, GroupedGridsHaveSquareCells) {
  Zone coarse = zone(panel());
  coarse.pixelsPerCell = 4;
  const ZoneId id = addZone(show_, coarse);
  EXPECT_EQ(cells(id).columns, 3);
  EXPECT_EQ(cells(id).rows, 5);
  EXPECT_EQ(cells(id).pixelsOf(0).size(), 16u);
}

TEST_F(Dividing, SortedZonesRunAsTheyLie) {
  Zone all = zone(named("Everything"));
  all.order = ZoneOrder::Upward;
  const ZoneCells up = cells(addZone(show_, all));
  for (std::size_t i = 1; i < up.position_m.size(); ++i)
    EXPECT_GE(up.position_m[i].z, up.position_m[i - 1].z - 2e-6);
  Zone ribs = zone(named("Roof ribs"));
  ribs.order = ZoneOrder::Around;
  ribs.backwards = true;
  const ZoneCells clockwise = cells(addZone(show_, ribs));
  EXPECT_EQ(clockwise.columns, 12);
  for (std::size_t i = 30; i < clockwise.position_m.size(); i += 30)
    EXPECT_LT(clockwise.frame.angle_deg(clockwise.position_m[i]),
              clockwise.frame.angle_deg(clockwise.position_m[i - 30]) + 1e-6);
}

TEST_F(Dividing, TheCentreCanBeMoved) {
  Zone rim = zone(named("Canopy rim"));
  rim.centre_m = Vec3{3, 0, 3.4};
  const ZoneCells moved = cells(addZone(show_, rim));
  EXPECT_NEAR(moved.frame.radius_m(moved.position_m[150]), 6, 0.01);
  EXPECT_LT(moved.along(Axis::Outward)[0], 0.02f);
}

TEST_F(Dividing, AnUprightRingGoesRoundItself) {
  Show show;
  addFixture(show, ArcShape{100, 1, 0, 360}, {0, 0, 2}, {90, 0, 0});
  const ZoneCells wheel = cellsOf(show, mapPixels(show), *show.zones[0]);
  for (int i = 1; i < 100; ++i) {
    EXPECT_GT(wheel.along(Axis::Around)[static_cast<std::size_t>(i)],
              wheel.along(Axis::Around)[static_cast<std::size_t>(i - 1)]);
    EXPECT_NEAR(wheel.along(Axis::Outward)[static_cast<std::size_t>(i)], 1, 1e-5);
  }
}

TEST_F(Dividing, PaintedPixelsAreAddedInDataOrderAndTakenAway) {
  const FixtureId rim = findNamed(show_.fixtures, "Canopy rim")->id;
  const ZoneId id = addZone(show_, Zone{{}, "Patch", {{rim, std::nullopt, false, {{10, 5, 1}}}}});
  paintZone(show_, map_, id, {12, 13, 14, 15, 16, 3});
  EXPECT_EQ(cells(id).pixels, (std::vector<std::uint32_t>{3, 10, 11, 12, 13, 14, 15, 16}));
  eraseFromZone(show_, map_, id, {10, 11, 12, 13});
  EXPECT_EQ(cells(id).pixels, (std::vector<std::uint32_t>{3, 14, 15, 16}));
  const auto rib = static_cast<std::uint32_t>(map_.rangeOf(findNamed(show_.fixtures, "Rib 1")->id)->first);
  paintZone(show_, map_, id, {rib, rib + 1});
  EXPECT_EQ(zone(id).parts.size(), 2u);
  std::vector<std::uint32_t> whole(300);
  for (std::uint32_t i = 0; i < 300; ++i) whole[i] = i;
  paintZone(show_, map_, id, whole);
  EXPECT_TRUE(zone(id).parts[0].runs.empty()) << "all of a fixture is the fixture";
  eraseFromZone(show_, map_, id, whole);
  eraseFromZone(show_, map_, id, {rib, rib + 1});
  EXPECT_EQ(cells(id).count(), 0);
  EXPECT_TRUE(find(show_.zones, id));
}

TEST_F(Dividing, PartsAreRearranged) {
  const ZoneId posts = named("Posts");
  const ZonePart first = zone(posts).parts[0];
  moveZonePart(show_, posts, 0, 5);
  EXPECT_EQ(zone(posts).parts[5], first);
}

TEST_F(Dividing, AZoneOfOneScoreHasAStaveThereOnly) {
  Score other;
  other.id = show_.newId<ScoreId>();
  other.name = "Silent";
  put(show_.scores, other);
  const auto stavesOf = [&](ScoreId id, ZoneId zone) {
    const auto& staves = find(show_.scores, id)->staves;
    return std::count(staves.begin(), staves.end(), zone);
  };
  const ZoneId rim = named("Canopy rim");
  const ScoreId waltz = show_.scores[0]->id;
  setZoneScore(show_, rim, other.id);
  EXPECT_EQ(stavesOf(waltz, rim), 0);
  EXPECT_EQ(stavesOf(other.id, rim), 1);
  for (const auto& clip : find(show_.scores, waltz)->clips) EXPECT_NE(clip->zone, rim);
  setZoneScore(show_, rim, {});
  EXPECT_EQ(stavesOf(waltz, rim), 1);
  const auto read = parseShow(showText(show_), "x");
  ASSERT_TRUE(read);
  EXPECT_EQ(*read, show_);
}

TEST_F(Dividing, ZonesAreCopiedBetweenFixturesOfLikeShape) {
  const FixtureId from = findNamed(show_.fixtures, "Panel 1")->id;
  const FixtureId to = findNamed(show_.fixtures, "Panel 2")->id;
  addZone(show_, Zone{{}, "Panel 1 foot", {{from, std::nullopt, false, {{0, 3, 20}}}}});
  const auto made = copyZones(show_, from, to);
  ASSERT_TRUE(made);
  ASSERT_EQ(made->size(), 1u);
  EXPECT_EQ(zone((*made)[0]).name, "Panel 2 foot");
  EXPECT_EQ(zone((*made)[0]).parts[0].fixture, to);
  EXPECT_FALSE(copyZones(show_, from, findNamed(show_.fixtures, "Post 1")->id));
  EXPECT_FALSE(copyZones(show_, from, to)) << "it has them all now";
}

TEST(PixelRuns, ComeBackAsTheyWere) {
  for (const std::vector<int>& numbers :
       {std::vector<int>{}, {7}, {0, 1, 2, 3}, {9, 8, 7}, {0, 3, 6, 1, 4, 7}, {5, 5, 5}, {0, 23, 24, 47}})
    EXPECT_EQ(numbersOf(runsOf(numbers)), numbers);
  EXPECT_EQ(runsOf(std::vector{9, 8, 7}), (std::vector<PixelRun>{{9, 3, -1}}));
}

}  // namespace
}  // namespace chispa
