// SPDX-License-Identifier: GPL-3.0-or-later
#include "carousel/carousel.h"
#include <gtest/gtest.h>

#include "core/zone/cells.h"

namespace chispa {
namespace {

class CarouselZones : public testing::Test {
 protected:
  ZoneCells cells(const std::string& name) const {
    return cellsOf(show_, map_, *findNamed(show_.zones, name));
  }

  Show show_ = demo::carousel();
  PixelMap map_ = mapPixels(show_);
};

TEST_F(CarouselZones, StringsStandSideBySide) {
  const ZoneCells posts = cells("Posts");
  EXPECT_EQ(posts.columns, 12);
  EXPECT_EQ(posts.rows, 26);
  EXPECT_EQ(posts.count(), 12 * 26);
}

TEST_F(CarouselZones, ALanternIsOneCellOfSixPixels) {
  const ZoneCells lanterns = cells("Lanterns");
  ASSERT_EQ(lanterns.count(), 12);
  for (int i = 0; i < 12; ++i) EXPECT_EQ(lanterns.pixelsOf(i).size(), 6u);
}

TEST_F(CarouselZones, PanelsMakeOneMatrixInWhichNeighboursAreNeighbours) {
  const ZoneCells column = cells("Column");
  EXPECT_EQ(column.columns, 96);
  EXPECT_EQ(column.rows, 20);
  std::map<std::pair<int, int>, Vec3> places;
  for (int i = 0; i < column.count(); ++i)
    places[{column.column[static_cast<std::size_t>(i)], column.row[static_cast<std::size_t>(i)]}] =
        map_.positions[column.pixelsOf(i)[0]];
  ASSERT_EQ(places.size(), 96u * 20u);
  for (int c = 0; c < 96; ++c) {
    const double gap = length(places.at({(c + 1) % 96, 7}) - places.at({c, 7}));
    EXPECT_LT(gap, 0.11) << "columns " << c << " and the next";
  }
  for (int r = 0; r + 1 < 20; ++r) EXPECT_NEAR(places.at({5, r + 1}).z - places.at({5, r}).z, 0.09, 1e-9);
}

TEST_F(CarouselZones, AroundGrowsOnceRoundTheRim) {
  const ZoneCells rim = cells("Canopy rim");
  const auto around = rim.along(Axis::Around);
  for (int i = 1; i < rim.count(); ++i)
    EXPECT_GT(around[static_cast<std::size_t>(i)], around[static_cast<std::size_t>(i - 1)]);
}

TEST_F(CarouselZones, PlacesLieFromZeroToOne) {
  for (const auto& zone : show_.zones) {
    const ZoneCells all = cellsOf(show_, map_, *zone);
    for (const auto& places : all.places) {
      ASSERT_EQ(static_cast<int>(places.size()), all.count());
      for (const float place : places) EXPECT_TRUE(place >= 0 && place <= 1) << zone->name;
    }
  }
}

TEST(Zone, PartsWhoseFixtureIsGoneArePassedOver) {
  Show show;
  const Zone zone{ZoneId{1}, "Lost", {{FixtureId{99}, std::nullopt, false}}, ZoneLayout::Strand, 1};
  EXPECT_EQ(cellsOf(show, mapPixels(show), zone).count(), 0);
}

TEST(Zone, AReversedPartRunsBackwards) {
  Show show;
  put(show.fixtures, Fixture{FixtureId{1}, "Line", {}, {}, {{"line", LineShape{4, 0.1}, {}}}});
  const Zone zone{ZoneId{2}, "Back", {{FixtureId{1}, std::nullopt, true}}, ZoneLayout::Strand, 2};
  const ZoneCells cells = cellsOf(show, mapPixels(show), zone);
  ASSERT_EQ(cells.count(), 2);
  EXPECT_EQ(cells.pixelsOf(0)[0], 3u);
  EXPECT_EQ(cells.pixelsOf(1)[1], 0u);
}

}  // namespace
}  // namespace chispa
