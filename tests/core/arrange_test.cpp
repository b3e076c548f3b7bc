// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edit/arrange.h"

#include <gtest/gtest.h>

#include "core/edit/planedits.h"
#include "core/randomshape.h"

namespace chispa {
namespace {

std::vector<FixtureId> idsOf(const Show& show) {
  std::vector<FixtureId> ids;
  for (const auto& fixture : show.fixtures) ids.push_back(fixture->id);
  return ids;
}

Show threeLines() {
  Show show;
  addFixture(show, LineShape{10, 0.1}, {0, 0, 0});
  addFixture(show, LineShape{20, 0.1}, {1, 2, 0});
  addFixture(show, LineShape{10, 0.1}, {6, 5, 0});
  return show;
}

double lowX(const Fixture& fixture) {
  return positions(fixture).front().x;
}

TEST(Arrange, AlignedThingsHaveTheirEndsInLine) {
  Show show = threeLines();
  alignFixtures(show, idsOf(show), {1, 0, 0}, Align::Low);
  for (const auto& fixture : show.fixtures) EXPECT_NEAR(lowX(*fixture), 0.05, 1e-9);
  alignFixtures(show, idsOf(show), {0, 1, 0}, Align::High);
  for (const auto& fixture : show.fixtures) EXPECT_NEAR(fixture->place.position_m.y, 5, 1e-9);
}

TEST(Arrange, DistributedThingsHaveEqualGaps) {
  Show show = threeLines();
  distributeFixtures(show, idsOf(show), {0, 1, 0});
  EXPECT_NEAR(show.fixtures[1]->place.position_m.y, 2.5, 1e-9);
  EXPECT_NEAR(show.fixtures[0]->place.position_m.y, 0, 1e-9);
  EXPECT_NEAR(show.fixtures[2]->place.position_m.y, 5, 1e-9);
}

/// Whatever the shape and however it stands: every pixel lies where the mirror shows it, in the same order; a
/// second mirroring gives back where it was.
TEST(Arrange, AMirrorShowsEveryPixelOfEveryShape) {
  std::mt19937 random(5);
  std::uniform_real_distribution<double> angle(-180, 180);
  for (int round = 0; round < 180; ++round) {
    Show show;
    const FixtureId id = addFixture(show, randomShape(round % 9, random), {1, 2, 3},
                                    {angle(random), angle(random), angle(random)});
    changeItem(show.fixtures, id, [&](Fixture& f) {
      f.segments[0].place = {{0.2, 0.1, 0}, {angle(random), 5, 7}};
    });
    const auto before = positions(*show.fixtures[0]);
    const Vec3 axis = round % 2 == 0 ? Vec3{1, 0, 0} : unit({1, 1, 0});
    double low = 1e30;
    double high = -1e30;
    for (const Vec3& p : before) {
      low = std::min(low, dot(p, axis));
      high = std::max(high, dot(p, axis));
    }
    mirrorFixtures(show, {id}, axis);
    const auto after = positions(*show.fixtures[0]);
    ASSERT_EQ(after.size(), before.size());
    for (std::size_t i = 0; i < after.size(); ++i) {
      const Vec3 wanted = before[i] - axis * (2 * dot(before[i], axis) - low - high);
      ASSERT_LT(length(after[i] - wanted), 1e-6)
          << shapeName(show.fixtures[0]->segments[0].shape) << " pixel " << i;
    }
    mirrorFixtures(show, {id}, axis);
    const auto again = positions(*show.fixtures[0]);
    for (std::size_t i = 0; i < again.size(); ++i) ASSERT_LT(length(again[i] - before[i]), 1e-6);
  }
}

TEST(Arrange, AGroupIsTakenTogether) {
  Show show = threeLines();
  const auto ids = idsOf(show);
  groupFixtures(show, {ids[0], ids[2]}, "Frame");
  EXPECT_EQ(withGroups(show, {ids[2]}), (std::vector<FixtureId>{ids[2], ids[0]}));
  EXPECT_EQ(withGroups(show, {ids[1]}), (std::vector<FixtureId>{ids[1]}));
  groupFixtures(show, ids, "");
  EXPECT_EQ(withGroups(show, {ids[2]}).size(), 1u);
}

}  // namespace
}  // namespace chispa
