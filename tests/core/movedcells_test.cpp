// SPDX-License-Identifier: GPL-3.0-or-later
// Cells of zones whose fixtures were moved are what they would be if they were worked out from nothing.
#include "core/zone/movedcells.h"

#include <random>

#include "carousel/carousel.h"
#include <gtest/gtest.h>

#include "core/edit/planedits.h"

namespace chispa {
namespace {

void expectSame(const ZoneCells& a, const ZoneCells& b, const std::string& what) {
  SCOPED_TRACE(what);
  EXPECT_EQ(a.columns, b.columns);
  EXPECT_EQ(a.rows, b.rows);
  EXPECT_EQ(a.column, b.column);
  EXPECT_EQ(a.row, b.row);
  EXPECT_EQ(a.position_m, b.position_m);
  EXPECT_EQ(a.frame.centre_m, b.frame.centre_m);
  EXPECT_EQ(a.frame.right, b.frame.right);
  EXPECT_EQ(a.frame.up, b.frame.up);
  EXPECT_EQ(a.places, b.places);
  EXPECT_EQ(a.x, b.x);
  EXPECT_EQ(a.y, b.y);
  EXPECT_EQ(a.halfWidth, b.halfWidth);
  EXPECT_EQ(a.halfHeight, b.halfHeight);
  EXPECT_EQ(a.piece, b.piece);
  EXPECT_EQ(a.alongPiece, b.alongPiece);
  EXPECT_EQ(a.pieces, b.pieces);
  EXPECT_EQ(a.length_m, b.length_m);
  EXPECT_EQ(a.size_m, b.size_m);
  EXPECT_EQ(a.firstPixel, b.firstPixel);
  EXPECT_EQ(a.pixels, b.pixels);
  EXPECT_EQ(a.indexes, b.indexes);
  EXPECT_EQ(a.columnNumbers, b.columnNumbers);
  EXPECT_EQ(a.rowNumbers, b.rowNumbers);
  EXPECT_EQ(a.cellOfPlace, b.cellOfPlace);
  EXPECT_EQ(a.isPlain, b.isPlain);
}

/// The demo with its fixtures moved and turned by chance, some of them or all.
Show shaken(const Show& show, std::mt19937& random) {
  Show next = show;
  std::uniform_real_distribution<> by(-3, 3), turn(-180, 180);
  const unsigned every = 1 + random() % 4;
  for (const auto& fixture : show.fixtures)
    if (random() % every == 0)
      changeItem(next.fixtures, fixture->id, [&](Fixture& moved) {
        moved.place.position_m = moved.place.position_m + Vec3{by(random), by(random), by(random)};
        moved.place.rotation_deg = {turn(random), turn(random), turn(random)};
      });
  return next;
}

TEST(MovedCells, AreAsIfWorkedOutFromNothing) {
  std::mt19937 random(11);
  const Show show = demo::carousel();
  const PixelMap map = mapPixels(show);
  int moved = 0;
  for (int round = 0; round < 6; ++round) {
    const Show next = shaken(show, random);
    const PixelMap nextMap = mapPixels(next);
    for (const auto& zone : show.zones)
      for (const ZoneLayout layout :
           {ZoneLayout::Strand, ZoneLayout::SideBySide, ZoneLayout::Strings, ZoneLayout::Panels}) {
        Zone changed = *zone;
        changed.layout = layout;
        changed.pixelsPerCell = 1 + static_cast<int>(random() % 3);
        const auto cells = movedCells(next, nextMap, changed, map, cellsOf(show, map, changed));
        if (!cells) continue;
        ++moved;
        expectSame(*cells, cellsOf(next, nextMap, changed), zone->name);
      }
  }
  EXPECT_GT(moved, 200);
}

/// What is sorted by where it lies has no short way.
TEST(MovedCells, AreNoneWhereTheOrderDependsOnThePlace) {
  const Show show = demo::carousel();
  const PixelMap map = mapPixels(show);
  Zone zone = *show.zones.front();
  for (const ZoneOrder order : {ZoneOrder::LeftToRight, ZoneOrder::FrontToBack, ZoneOrder::Upward,
                                ZoneOrder::Around, ZoneOrder::Outward}) {
    zone.order = order;
    EXPECT_FALSE(movedCells(show, map, zone, map, cellsOf(show, map, zone)));
  }
  zone.order = ZoneOrder::Listed;
  EXPECT_TRUE(movedCells(show, map, zone, map, cellsOf(show, map, zone)));
  zone.layout = ZoneLayout::Panels;
  zone.panelsAcross = 0;
  EXPECT_FALSE(movedCells(show, map, zone, map, cellsOf(show, map, zone)));
}

}  // namespace
}  // namespace chispa
