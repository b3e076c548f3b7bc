// SPDX-License-Identifier: GPL-3.0-or-later
#include "carousel/carousel.h"
#include <gtest/gtest.h>

#include "core/edit/scoreedits.h"
#include "core/edit/wireedits.h"
#include "core/edit/zoneedits.h"
#include "core/wire/patch.h"
#include "core/zone/cells.h"

namespace chispa {
namespace {

TEST(Names, CopiesAreNumberedOn) {
  Show show;
  const FixtureId post = addFixture(show, LineShape{5, 0.1}, {});
  changeItem(show.fixtures, post, [](Fixture& f) { f.name = "Post 9"; });
  duplicateInRow(show, {post}, 3, {1, 0, 0});
  EXPECT_TRUE(findNamed(show.fixtures, "Post 10"));
  EXPECT_TRUE(findNamed(show.fixtures, "Post 11"));
  EXPECT_EQ(nextName(show.fixtures, "Sign"), "Sign 2");
  EXPECT_EQ(nextName(show.fixtures, "12"), "12 2") << "a name that is only a number keeps it";
  EXPECT_EQ(nextName(show.fixtures, "Post 99999999999"), "Post 99999999999 2") << "too long to count on";
}

TEST(PlanEdits, RepeatingInARowKeepsTheDistance) {
  Show show;
  const FixtureId line = addFixture(show, LineShape{5, 0.1}, {1, 2, 3});
  const auto copies = duplicateInRow(show, {line}, 4, {0.5, 0, 0});
  ASSERT_EQ(copies.size(), 3u);
  for (std::size_t i = 0; i < copies.size(); ++i)
    EXPECT_NEAR(find(show.fixtures, copies[i])->place.position_m.x, 1 + 0.5 * static_cast<double>(i + 1),
                1e-12);
}

TEST(PlanEdits, RepeatingAroundGivesTheDemosPosts) {
  const Show demo = demo::carousel();
  Show show;
  for (const auto& strip : demo.stripTypes) put(show.stripTypes, *strip);
  show.nextId = demo.nextId;
  put(show.fixtures, *findNamed(demo.fixtures, "Post 1"));
  duplicateAround(show, {show.fixtures[0]->id}, 12, {}, 360);
  for (int i = 1; i <= 12; ++i) {
    const std::string name = "Post " + std::to_string(i);
    const auto made = positions(*findNamed(show.fixtures, name));
    const auto wanted = positions(*findNamed(demo.fixtures, name));
    for (std::size_t p = 0; p < made.size(); ++p)
      ASSERT_LT(length(made[p] - wanted[p]), 1e-9) << name << ", pixel " << p;
  }
}

TEST(PlanEdits, AnOpenSweepPutsTheLastAtItsEnd) {
  Show show;
  const FixtureId line = addFixture(show, LineShape{1, 0.1}, {2, 0, 0});
  const auto copies = duplicateAround(show, {line}, 3, {}, 90);
  const Vec3 last = find(show.fixtures, copies.back())->place.position_m;
  EXPECT_NEAR(last.x, 0, 1e-9);
  EXPECT_NEAR(last.y, 2, 1e-9);
}

TEST(PlanEdits, ANewZoneHasAStaveInEveryScore) {
  Show show = demo::carousel();
  const std::size_t before = show.scores[0]->staves.size();
  const FixtureId line = addFixture(show, LineShape{5, 0.1}, {});
  EXPECT_EQ(show.scores[0]->staves.size(), before + 1);
  deleteFixtures(show, {line});
  EXPECT_EQ(show.scores[0]->staves.size(), before);
}

TEST(PlanEdits, AStripTypeOfItsOwnLeavesOthersAlone) {
  Show show = demo::carousel();
  const FixtureId sign = findNamed(show.fixtures, "Booth sign")->id;
  const StripTypeId made = addStripType(show, {sign});
  EXPECT_EQ(find(show.fixtures, sign)->stripType, made);
  EXPECT_NE(findNamed(show.fixtures, "Panel 1")->stripType, made);
  EXPECT_EQ(find(show.stripTypes, made)->name, "Heron panel 2");
}

TEST(PlanEdits, AReversedZonePlaysFromTheOtherEnd) {
  Show show = demo::carousel();
  const ZoneId rim = findNamed(show.zones, "Canopy rim")->id;
  const PixelMap map = mapPixels(show);
  const auto before = cellsOf(show, map, *find(show.zones, rim)).pixels;
  reverseZone(show, rim);
  auto after = cellsOf(show, map, *find(show.zones, rim)).pixels;
  std::reverse(after.begin(), after.end());
  EXPECT_EQ(after, before);
}

TEST(PlanEdits, AZoneForEachPartIsNumbered) {
  Show show = demo::carousel();
  const auto made = divideZone(show, findNamed(show.zones, "Posts")->id, {Division::Fixtures});
  ASSERT_EQ(made.size(), 12u);
  EXPECT_EQ(find(show.zones, made[0])->name, "Posts 1");
  EXPECT_EQ(find(show.zones, made[11])->name, "Posts 12");
  EXPECT_EQ(cellsOf(show, mapPixels(show), *find(show.zones, made[3])).count(), 26);
}

TEST(PlanEdits, CombinedZonesPlayOneBehindTheOther) {
  Show show = demo::carousel();
  const ZoneId both =
      combineZones(show, findNamed(show.zones, "Canopy rim")->id, findNamed(show.zones, "Path edge")->id);
  EXPECT_EQ(cellsOf(show, mapPixels(show), *find(show.zones, both)).count(), 600);
  EXPECT_EQ(find(show.zones, both)->name, "Canopy rim and Path edge");
}

TEST(WireEdits, NewControllersTakeUniversesThatAreFree) {
  Show show = demo::carousel();
  const ControllerId box = addController(show, 2);
  EXPECT_GT(find(show.controllers, box)->firstUniverse, 72);
}

TEST(WireEdits, FewerPortsPutTheirBeadsBackIntoTheTray) {
  Show show = demo::carousel();
  setPortCount(show, show.controllers[3]->id, 1);
  int loose = 0;
  for (const UnwiredPiece& piece : unwiredPieces(show)) loose += piece.count;
  EXPECT_EQ(loose, 300 + 6 + 8);
}

TEST(WireEdits, MovingABeadDownItsOwnThreadCountsFromWhereItWas) {
  Show show = demo::carousel();
  const ControllerId box = show.controllers[0]->id;
  const FixtureId first = show.controllers[0]->ports[2].run[0].fixture;
  moveBead(show, {box, 2, 0}, {box, 2, 2});
  EXPECT_EQ(show.controllers[0]->ports[2].run[1].fixture, first);
  moveBead(show, {box, 2, 1}, {box, 2, 0});
  EXPECT_EQ(show.controllers[0]->ports[2].run[0].fixture, first);
}

TEST(WireEdits, PlacesThatDoNotExistChangeNothing) {
  Show show = demo::carousel();
  const Show before = show;
  const ControllerId box = show.controllers[0]->id;
  cutBead(show, {box, 99, 0}, 3);
  cutBead(show, {box, 0, 99}, 3);
  cutBead(show, {box, 0, 0}, 0);
  turnBead(show, {box, -1, 0});
  unhang(show, {ControllerId{9999}, 0, 0});
  moveBead(show, {box, 5, 3}, {box, 0, 0});
  EXPECT_EQ(show, before);
}

/// An empty score over one line.
class OneStave : public testing::Test {
 protected:
  OneStave() {
    addFixture(show_, LineShape{10, 0.1}, {});
    zone_ = show_.zones[0]->id;
    score_ = addScore(show_, "S", "", Micros(60'000'000));
  }
  ClipId add(int start_s, int length_s) {
    return addClip(show_, score_, zone_, "ribbon", {}, std::chrono::seconds(start_s),
                   std::chrono::seconds(length_s));
  }
  const Clip& clip(ClipId id) const { return *findClip(*show_.scores[0], id); }

  Show show_;
  ZoneId zone_;
  ScoreId score_;
};

TEST_F(OneStave, AClipTakesTheLowestFreeLayer) {
  const ClipId a = add(0, 4);
  const ClipId b = add(2, 4);
  const ClipId c = add(4, 4);
  EXPECT_EQ(clip(a).layer, 0);
  EXPECT_EQ(clip(b).layer, 1);
  EXPECT_EQ(clip(c).layer, 0) << "it begins where the first ends";
}

TEST_F(OneStave, CopiesStandBehindTheirOriginals) {
  const ClipId a = add(0, 4);
  const auto copies = duplicateClips(show_, score_, {a});
  ASSERT_EQ(copies.size(), 1u);
  EXPECT_EQ(clip(copies[0]).start, clip(a).end());
  EXPECT_EQ(clip(copies[0]).effect, "ribbon");
}

TEST_F(OneStave, NoClipMovesBeforeTheStart) {
  const ClipId a = add(1, 4);
  moveClips(show_, score_, {a}, std::chrono::seconds(-5));
  EXPECT_EQ(clip(a).start, Micros(0));
  EXPECT_EQ(clip(a).length, std::chrono::seconds(4));
}

TEST_F(OneStave, MarksStayInOrder) {
  const MarkId late = addMark(show_, score_, LaneKind::Free, "Marks", Micros(5'000'000), "b");
  addMark(show_, score_, LaneKind::Free, "Marks", Micros(2'000'000), "a");
  const MarkLane* lane = laneOf(*show_.scores[0], LaneKind::Free);
  ASSERT_EQ(show_.scores[0]->lanes.size(), 1u) << "both are on one lane";
  EXPECT_EQ(lane->marks[0].text, "a");
  moveMark(show_, score_, late, Micros(1'000'000));
  EXPECT_EQ(laneOf(*show_.scores[0], LaneKind::Free)->marks[0].text, "b");
  deleteMark(show_, score_, late);
  EXPECT_EQ(laneOf(*show_.scores[0], LaneKind::Free)->marks.size(), 1u);
}

TEST_F(OneStave, SnappingTakesTheNearestWithinReach) {
  const ClipId a = add(0, 4);
  addMark(show_, score_, LaneKind::Beats, "Beats", Micros(6'000'000), "");
  const auto points = snapPoints(*show_.scores[0], {});
  EXPECT_EQ(snapped(points, Micros(4'030'000), Micros(50'000)), Micros(4'000'000));
  EXPECT_EQ(snapped(points, Micros(5'980'000), Micros(50'000)), Micros(6'000'000));
  EXPECT_FALSE(snapped(points, Micros(5'000'000), Micros(50'000)));
  const auto without = snapPoints(*show_.scores[0], {a});
  EXPECT_FALSE(snapped(without, Micros(4'030'000), Micros(50'000))) << "a clip does not snap to itself";
}

TEST_F(OneStave, DeletingAZoneTakesItsClips) {
  add(0, 4);
  deleteZone(show_, zone_);
  EXPECT_TRUE(show_.scores[0]->clips.empty());
  EXPECT_TRUE(show_.scores[0]->staves.empty());
}

}  // namespace
}  // namespace chispa
