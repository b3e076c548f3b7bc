// SPDX-License-Identifier: GPL-3.0-or-later
#include <random>

#include <gtest/gtest.h>

#include "core/edit/planedits.h"
#include "core/files/pointfile.h"
#include "core/files/showjson.h"
#include "core/randomshape.h"
#include "core/show/history.h"
#include "core/zone/cells.h"

namespace chispa {
namespace {

TEST(Path, PixelsAreEvenlySpacedRoundCorners) {
  const auto points = localPositions(PathShape{30, {{0, 0, 0}, {1, 0, 0}, {1, 2, 0}}, false});
  ASSERT_EQ(points.size(), 30u);
  EXPECT_NEAR(points[0].x, 0.05, 1e-9);
  EXPECT_NEAR(points[9].x, 0.95, 1e-9);
  EXPECT_NEAR(points[10].y, 0.05, 1e-9);
  EXPECT_NEAR(points[29].y, 1.95, 1e-9);
}

TEST(Path, ASmoothPathRunsThroughItsCorners) {
  const PathShape path{2000, {{0, 0, 0}, {1, 0, 0}, {1, 1, 0}, {2, 1, 1}}, true};
  for (const Vec3& corner : path.corners) {
    double nearest = 1e9;
    for (const Vec3& point : localPositions(path)) nearest = std::min(nearest, length(point - corner));
    EXPECT_LT(nearest, 2e-3);
  }
}

TEST(Rings, CountEachRingFromOutsideIn) {
  const auto points = localPositions(RingsShape{{6, 12}, 0.1, 0.3, 0, true});
  ASSERT_EQ(points.size(), 18u);
  EXPECT_NEAR(length(points[0]), 0.3, 1e-12);
  EXPECT_NEAR(length(points[12]), 0.1, 1e-12);
}

TEST(Spiral, AHelixRisesAndKeepsItsSpacing) {
  const auto points = localPositions(SpiralShape{200, 5, 0.5, 0.5, 2});
  const double gap = length(points[1] - points[0]);
  for (std::size_t i = 1; i < points.size(); ++i) {
    EXPECT_NEAR(length(points[i] - points[i - 1]), gap, gap * 0.01);
    EXPECT_GT(points[i].z, points[i - 1].z);
  }
}

TEST(Cone, StringsRunUpAndDownInTurn) {
  const ConeShape cone{4, 10, 1, 0.2, 3, 0, 360, StringWay::Serpentine};
  const auto points = localPositions(cone);
  EXPECT_NEAR(points[0].z, 0, 1e-12);
  EXPECT_NEAR(points[9].z, 3, 1e-12);
  EXPECT_NEAR(points[10].z, 3, 1e-12);
  EXPECT_NEAR(std::hypot(points[0].x, points[0].y), 1, 1e-12);
  EXPECT_NEAR(std::hypot(points[9].x, points[9].y), 0.2, 1e-12);
}

TEST(Cone, IsAMatrixInAZone) {
  Show show;
  addFixture(show, ConeShape{16, 20, 1, 1, 2, 0, 360, StringWay::Serpentine}, {});
  const ZoneCells cells = cellsOf(show, mapPixels(show), *show.zones.front());
  EXPECT_EQ(cells.columns, 16);
  EXPECT_EQ(cells.rows, 20);
  EXPECT_GT(cells.along(Axis::Height)[19], 0.99f);
}

/// For random shapes of every kind: as many places as pixels, all finite; the file gives the same back; undo
/// too.
TEST(EveryShape, CountsPlacesFilesAndUndoAgree) {
  std::mt19937 random(17);
  for (int round = 0; round < 900; ++round) {
    const Shape shape = randomShape(round % 9, random);
    const auto points = localPositions(shape);
    ASSERT_EQ(static_cast<int>(points.size()), pixelCount(shape)) << shapeName(shape);
    for (const Vec3& point : points)
      ASSERT_TRUE(std::isfinite(point.x + point.y + point.z)) << shapeName(shape);
    ASSERT_GE(stripLength_m(shape), 0);
    History history;
    const Show empty = history.now();
    history.apply("add", [&](Show& show) { addFixture(show, shape, {1, 2, 3}); });
    const auto read = parseShow(showText(history.now()), "x");
    ASSERT_TRUE(read) << shapeName(shape);
    ASSERT_EQ(*read, history.now()) << shapeName(shape);
    history.undo();
    ASSERT_EQ(history.now(), empty);
  }
}

TEST(Points, TablesWithAnySeparatorAndHeadingAreRead) {
  for (const char* text : {"x,y\n1,2\n3,4\n", "1;2\n3;4", "X_m Y_m\n1 2\n\n3 4\n", "1\t2\t0\r\n3\t4\t0\r\n",
                           "+1, 2\n3.0 ,4e0\n"}) {
    const auto points = parsePoints(text, "p.csv");
    ASSERT_TRUE(points) << text;
    EXPECT_EQ(*points, (std::vector<Vec3>{{1, 2, 0}, {3, 4, 0}})) << text;
  }
  EXPECT_NEAR((*parsePoints("1000,500,250", "p", 0.001))[0].z, 0.25, 1e-12);
}

TEST(Points, WrongLinesAreNamedAndNothingIsRead) {
  for (const char* text : {"", "x,y\n", "1,2\nthree,4\n", "1,2,3,4\n", "1\n", "nan,2\n", "1e300,0\n", "[",
                           "[{\"point\": [1]}]", "[{\"place\": [1,2]}]", "{\"point\": 3}"}) {
    const auto points = parsePoints(text, "p.csv");
    ASSERT_FALSE(points) << text;
    EXPECT_EQ(points.failure().where, "p.csv");
  }
  EXPECT_NE(parsePoints("1,2\nthree,4\n", "p").failure().what.text().find("Line 2"), std::string::npos);
}

TEST(Points, BothFormatsComeBack) {
  const std::vector<Vec3> points = {{0.125, -2, 3.5}, {1, 2, 3}};
  EXPECT_EQ(*parsePoints(pointsCsv(points), "x"), points);
  EXPECT_EQ(*parsePoints(pointsJson(points), "x"), points);
}

}  // namespace
}  // namespace chispa
