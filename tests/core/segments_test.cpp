// SPDX-License-Identifier: GPL-3.0-or-later
#include "carousel/carousel.h"
#include <gtest/gtest.h>

#include "core/edit/planedits.h"
#include "core/edit/segmentedits.h"
#include "core/randomshape.h"
#include "core/shape/order.h"
#include "core/zone/cells.h"

namespace chispa {
namespace {

const Fixture& only(const Show& show) {
  return *show.fixtures.front();
}

void expectNear(const std::vector<Vec3>& a, const std::vector<Vec3>& b) {
  ASSERT_EQ(a.size(), b.size());
  for (std::size_t i = 0; i < a.size(); ++i) EXPECT_LT(length(a[i] - b[i]), 1e-6) << "pixel " << i;
}

TEST(Placement, ComposedAndRelativeUndoEachOther) {
  std::mt19937 random(3);
  std::uniform_real_distribution<double> angle(-180, 180);
  for (int round = 0; round < 200; ++round) {
    const bool isUpright = round % 4 == 0;  // a turn of 90° about y locks two axes together
    const Placement outer{{1, -2, 3}, {angle(random), isUpright ? 90.0 : angle(random), angle(random)}};
    const Placement inner{{0.5, 0, -1}, {angle(random), isUpright ? -90.0 : angle(random), angle(random)}};
    const Placement world = composed(outer, inner);
    const Vec3 point{0.3, 0.7, -0.2};
    EXPECT_LT(length(placed(world, point) - placed(outer, placed(inner, point))), 1e-9);
    EXPECT_LT(length(placed(composed(outer, relativeTo(outer, world)), point) - placed(world, point)), 1e-9);
  }
}

/// Cutting a segment of any shape anywhere leaves every pixel in its place; joining does too.
TEST(Segments, SplitAndJoinLeaveEveryPixelInPlace) {
  std::mt19937 random(11);
  for (int round = 0; round < 180; ++round) {
    Show show;
    const FixtureId id = addFixture(show, randomShape(round % 9, random), {1, 2, 3}, {10, 20, 30});
    if (round % 2 == 1) reverseSegment(show, id, 0);
    const auto before = positions(only(show));
    const int at = std::uniform_int_distribution(0, pixelCount(only(show)))(random);
    splitSegment(show, id, 0, at);
    expectNear(positions(only(show)), before);
    const bool isCut = at > 0 && at < pixelCount(only(show));
    ASSERT_EQ(only(show).segments.size(), isCut ? 2u : 1u);
    if (isCut) {
      EXPECT_EQ(pixelCount(only(show).segments[0]), at);
    }
    joinSegments(show, id, 0);
    expectNear(positions(only(show)), before);
    EXPECT_EQ(only(show).segments.size(), 1u);
  }
}

TEST(Segments, LinesAndArcsJoinIntoWhatTheyWere) {
  for (const Shape& shape : {Shape(LineShape{100, 0.02}), Shape(ArcShape{100, 1, 30, 200})}) {
    Show show;
    const FixtureId id = addFixture(show, shape, {});
    splitSegment(show, id, 0, 37);
    joinSegments(show, id, 0);
    EXPECT_EQ(shapeName(only(show).segments[0].shape), shapeName(shape));
    EXPECT_EQ(pixelCount(only(show)), 100);
  }
}

TEST(Segments, AStripIsCutOnlyWhereItCanBe) {
  Show show;
  StripType strip;
  strip.id = show.newId<StripTypeId>();
  strip.pixelsPerCut = 6;
  put(show.stripTypes, strip);
  const FixtureId id = addFixture(show, LineShape{60, 0.02}, {});
  splitSegment(show, id, 0, 20);
  EXPECT_EQ(pixelCount(only(show).segments[0]), 18);
  splitSegment(show, id, 0, 2);
  EXPECT_EQ(only(show).segments.size(), 2u) << "nothing is left in front of the first cut";
}

TEST(Segments, ZonesAndBeadsFollowASplit) {
  Show show = demo::carousel();
  const PixelMap map = mapPixels(show);
  const auto before = cellsOf(show, map, *findNamed(show.zones, "Lanterns")).pixels;
  const auto wiring = show.controllers;
  splitSegment(show, findNamed(show.fixtures, "Post 3")->id, 0, 10);
  EXPECT_EQ(cellsOf(show, map, *findNamed(show.zones, "Lanterns")).pixels, before);
  EXPECT_TRUE(sameItems(show.controllers, wiring));
  const Zone& posts = *findNamed(show.zones, "Posts");
  EXPECT_EQ(cellsOf(show, map, posts).count(), 12 * 26);
}

TEST(Segments, AMovedSegmentTakesItsZonesAlongAndLeavesTheWire) {
  Show show = demo::carousel();
  const FixtureId post = findNamed(show.fixtures, "Post 1")->id;
  const auto wiring = show.controllers;
  moveSegment(show, post, 1, 0);
  const Fixture& fixture = *find(show.fixtures, post);
  EXPECT_EQ(fixture.segments[0].name, "lantern");
  const PixelMap map = mapPixels(show);
  const ZoneCells lanterns = cellsOf(show, map, *findNamed(show.zones, "Lanterns"));
  ASSERT_EQ(lanterns.count(), 12);
  const int first = map.rangeOf(post)->first;
  for (std::uint32_t i = 0; i < 6; ++i)
    EXPECT_EQ(lanterns.pixelsOf(0)[i], static_cast<std::uint32_t>(first) + i);
  EXPECT_TRUE(sameItems(show.controllers, wiring));
}

TEST(Segments, RemovingOneSaysWhatIsLost) {
  Show show = demo::carousel();
  const Losses losses = removeSegment(show, findNamed(show.fixtures, "Post 1")->id, 1);
  const auto speaksOf = [&](const std::string& words) {
    return std::any_of(losses.begin(), losses.end(),
                       [&](const std::string& loss) { return loss.find(words) != std::string::npos; });
  };
  EXPECT_TRUE(speaksOf("Zone Lanterns loses 6 pixels")) << losses.front();
  EXPECT_TRUE(speaksOf("Post box loses 6 pixels"));
  EXPECT_EQ(cellsOf(show, mapPixels(show), *findNamed(show.zones, "Lanterns")).count(), 11);
  EXPECT_TRUE(removeSegment(show, findNamed(show.fixtures, "Canopy rim")->id, 0).empty())
      << "the last segment stays";
}

TEST(Segments, FixturesJoinAndComeApartAgain) {
  Show show = demo::carousel();
  const PixelMap map = mapPixels(show);
  const auto panels = cellsOf(show, map, *findNamed(show.zones, "Column"));
  std::vector<FixtureId> ids;
  for (int i = 1; i <= 8; ++i) ids.push_back(findNamed(show.fixtures, "Panel " + std::to_string(i))->id);
  joinFixtures(show, ids);
  ASSERT_EQ(find(show.fixtures, ids[0])->segments.size(), 8u);
  const ZoneCells joined = cellsOf(show, mapPixels(show), *findNamed(show.zones, "Column"));
  EXPECT_EQ(joined.columns, 96);
  EXPECT_EQ(joined.rows, 20);
  expectNear(joined.position_m, panels.position_m);
  EXPECT_EQ(show.controllers[2]->ports[0].run.size(), 2u);
  const auto apart = separateSegments(show, ids[0]);
  ASSERT_EQ(apart.size(), 8u);
  expectNear(cellsOf(show, mapPixels(show), *findNamed(show.zones, "Column")).position_m, panels.position_m);
}

TEST(Segments, AStrokeThroughPointsNumbersThem) {
  const std::vector<Vec3> points = {{0, 0, 0}, {3, 0, 0}, {1, 0, 0}, {2, 0, 0}};
  EXPECT_EQ(nearestOrder(points), (std::vector<int>{0, 2, 3, 1}));
  EXPECT_EQ(orderThrough(points, {{3, 0.05, 0}, {2, 0, 0}}, 0.1), (std::vector<int>{1, 3, 2, 0}));
  Show show;
  const FixtureId id = addFixture(show, PointsShape{points}, {});
  renumberSegment(show, id, 0, nearestOrder(points));
  EXPECT_EQ(positions(only(show)), (std::vector<Vec3>{{0, 0, 0}, {1, 0, 0}, {2, 0, 0}, {3, 0, 0}}));
}

TEST(Remap, CountsThatShrinkTellWhatGoesAndKeepTheRest) {
  Show show;
  const FixtureId id = addFixture(show, LineShape{30, 0.1}, {});
  Zone tip;
  tip.name = "Tip";
  tip.parts = {{id, std::nullopt, false, {{20, 10, 1}}}};
  put(show.zones, [&] {
    tip.id = show.newId<ZoneId>();
    return tip;
  }());
  const auto shorten = [&](int count) {
    return changeFixture(show, id, [count](Fixture& f) { f.segments[0].shape = LineShape{count, 0.1}; });
  };
  EXPECT_EQ(shorten(25), (Losses{"Zone Tip loses 5 pixels."}));
  EXPECT_EQ(cellsOf(show, mapPixels(show), *findNamed(show.zones, "Tip")).count(), 5);
  EXPECT_TRUE(shorten(40).empty());
  EXPECT_EQ(cellsOf(show, mapPixels(show), *findNamed(show.zones, "Line")).count(), 40)
      << "the whole stays the whole";
  EXPECT_EQ(shorten(10), (Losses{"Zone Tip loses 5 pixels, its last; it goes."}));
  EXPECT_FALSE(findNamed(show.zones, "Tip"));
}

TEST(Remap, ALongerShaftMovesTheLanternsPixels) {
  Show show = demo::carousel();
  const FixtureId post = findNamed(show.fixtures, "Post 1")->id;
  EXPECT_TRUE(changeFixture(show, post, [](Fixture& f) {
                f.segments[0].shape = LineShape{30, 0.09};
              }).empty());
  const PixelMap map = mapPixels(show);
  EXPECT_EQ(cellsOf(show, map, *findNamed(show.zones, "Lanterns")).pixelsOf(0)[0],
            static_cast<std::uint32_t>(map.rangeOf(post)->first + 30));
  EXPECT_EQ(show.controllers[1]->ports[0].run[0].count, 36);
}

}  // namespace
}  // namespace chispa
