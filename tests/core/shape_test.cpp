// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/shape/shape.h"

#include <random>
#include <set>

#include <gtest/gtest.h>

#include "core/shape/placement.h"
#include "core/show/fixture.h"

namespace chispa {
namespace {

TEST(Line, PixelsSitInTheMiddleOfTheirPitch) {
  const auto points = localPositions(LineShape{3, 0.1});
  EXPECT_NEAR(points[0].x, 0.05, 1e-12);
  EXPECT_NEAR(points[2].x, 0.25, 1e-12);
  EXPECT_NEAR(stripLength_m(LineShape{3, 0.1}), 0.3, 1e-12);
}

TEST(Grid, SerpentineAlongRowsTurnsBackEverySecondRow) {
  const GridShape grid{3, 2, 1, 1, Corner::BottomLeft, GridRuns::AlongRows, true};
  const GridCell wanted[] = {{0, 0}, {0, 1}, {0, 2}, {1, 2}, {1, 1}, {1, 0}};
  for (int i = 0; i < 6; ++i) EXPECT_EQ(matrixCells(grid)[static_cast<std::size_t>(i)], wanted[i]) << i;
}

TEST(Grid, StraightFromTopRightAlongColumnsGoesDownEachColumn) {
  const GridShape grid{2, 3, 1, 1, Corner::TopRight, GridRuns::AlongColumns, false};
  const GridCell wanted[] = {{2, 1}, {1, 1}, {0, 1}, {2, 0}, {1, 0}, {0, 0}};
  for (int i = 0; i < 6; ++i) EXPECT_EQ(matrixCells(grid)[static_cast<std::size_t>(i)], wanted[i]) << i;
}

/// Every wiring of every size visits each cell exactly once, and a serpentine never jumps.
TEST(Grid, RandomGridsVisitEachCellOnceAndSerpentinesAreContinuous) {
  std::mt19937 random(7);
  const auto pick = [&random](int low, int high) { return std::uniform_int_distribution(low, high)(random); };
  for (int round = 0; round < 300; ++round) {
    const GridShape grid{pick(1, 20),
                         pick(1, 20),
                         0.05,
                         0.05,
                         static_cast<Corner>(pick(0, 3)),
                         static_cast<GridRuns>(pick(0, 1)),
                         pick(0, 1) == 1};
    std::set<std::pair<int, int>> seen;
    const auto points = localPositions(grid);
    for (int i = 0; i < pixelCount(grid); ++i) {
      const GridCell cell = matrixCells(grid)[static_cast<std::size_t>(i)];
      ASSERT_TRUE(cell.row >= 0 && cell.row < grid.rows && cell.column >= 0 && cell.column < grid.columns);
      seen.insert({cell.row, cell.column});
      if (i > 0 && grid.serpentine) {
        ASSERT_NEAR(length(points[static_cast<std::size_t>(i)] - points[static_cast<std::size_t>(i - 1)]),
                    0.05, 1e-9);
      }
    }
    ASSERT_EQ(static_cast<int>(seen.size()), pixelCount(grid));
  }
}

TEST(Arc, FullRingHasEqualGapsAndItsRadius) {
  const auto points = localPositions(ArcShape{12, 2, 0, 360});
  const double gap = length(points[1] - points[0]);
  for (std::size_t i = 0; i < points.size(); ++i) {
    EXPECT_NEAR(length(points[i]), 2, 1e-12);
    EXPECT_NEAR(length(points[(i + 1) % 12] - points[i]), gap, 1e-12);
  }
}

TEST(Placement, TurnsAboutXThenYThenZ) {
  const Vec3 up = placed({{0, 0, 1}, {0, -90, 0}}, {1, 0, 0});
  EXPECT_NEAR(up.z, 2, 1e-12);
  const Vec3 upright = placed({{}, {90, 0, 90}}, {1, 2, 0});
  EXPECT_NEAR(upright.x, 0, 1e-12);
  EXPECT_NEAR(upright.y, 1, 1e-12);
  EXPECT_NEAR(upright.z, 2, 1e-12);
}

TEST(Fixture, NumbersItsSegmentsOneBehindTheOther) {
  const Fixture post{FixtureId{1},
                     "Post",
                     {},
                     {},
                     {{"shaft", LineShape{26, 0.1}, {}}, {"lantern", ArcShape{6, 0.1, 0, 360}, {}}}};
  EXPECT_EQ(pixelCount(post), 32);
  EXPECT_EQ(firstPixelOf(post, 1), 26);
  EXPECT_EQ(positions(post).size(), 32u);
}

}  // namespace
}  // namespace chispa
