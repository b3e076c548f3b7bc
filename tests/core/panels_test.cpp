// SPDX-License-Identifier: GPL-3.0-or-later
#include "effecttrial.h"
#include <gtest/gtest.h>

#include "core/edit/planedits.h"
#include "core/effect/effect.h"
#include "core/show/limits.h"
#include "core/wire/patch.h"
#include "core/zone/cells.h"

namespace chispa {
namespace {

/// Four panels of 8 × 8 that hang two by two on a wall, each with a wiring of its own, one of them turned.
class Panels : public testing::Test {
 protected:
  static constexpr double kPitch_m = 0.01;

  Panels() {
    zone_.id = ZoneId{100};
    zone_.name = "Wall";
    zone_.layout = ZoneLayout::Panels;
    // Upper left, upper right, lower left, lower right.
    for (int i = 0; i < 4; ++i) {
      GridShape grid{8, 8, kPitch_m, kPitch_m};
      grid.serpentine = i % 2 == 0;
      grid.runs = i == 3 ? GridRuns::AlongColumns : GridRuns::AlongRows;
      Fixture panel{FixtureId{static_cast<std::uint32_t>(i + 1)}, "Panel", {}, {}, {{"face", grid, {}}}};
      // Upright: seen from the front, x goes across and z upward.
      panel.place.rotation_deg = {90, 0, 0};
      place(panel, i % 2, i < 2 ? 1 : 0, 0);
      put(show_.fixtures, panel);
      ZonePart part;
      part.fixture = panel.id;
      zone_.parts.push_back(part);
    }
  }
  /// Puts the middle of a panel into a field of the wall.
  void place(Fixture& panel, int column, int row, double gap_m) {
    const double size_m = 8 * kPitch_m + gap_m;
    Vec3 sum;
    panel.place.position_m = {};
    for (const Vec3& p : positions(panel)) sum = sum + p;
    const Vec3 middle = sum * (1.0 / 64);
    panel.place.position_m = Vec3{column * size_m, 0, row * size_m} - middle;
  }
  void change(int panel, const std::function<void(Fixture&)>& change) {
    changeItem(show_.fixtures, FixtureId{static_cast<std::uint32_t>(panel + 1)}, change);
  }
  /// Every cell lies in the zone's columns and rows as its pixel hangs on the wall.
  void expectOnePicture(const ZoneCells& cells, double pitch_m) {
    ASSERT_EQ(cells.count(), 256);
    const PixelMap map = mapPixels(show_);
    double left = 1e9, foot = 1e9;
    for (const Vec3& p : map.positions) {
      left = std::min(left, p.x);
      foot = std::min(foot, p.z);
    }
    for (int i = 0; i < cells.count(); ++i) {
      const Vec3& p = map.positions[cells.pixelsOf(i)[0]];
      EXPECT_EQ(cells.column[static_cast<std::size_t>(i)], std::lround((p.x - left) / pitch_m)) << i;
      EXPECT_EQ(cells.row[static_cast<std::size_t>(i)], std::lround((p.z - foot) / pitch_m)) << i;
    }
  }

  Show show_;
  Zone zone_;
};

TEST_F(Panels, ShowOnePictureInTheOrderOfTheList) {
  const ZoneCells cells = cellsOf(show_, mapPixels(show_), zone_);
  EXPECT_EQ(cells.columns, 16);
  EXPECT_EQ(cells.rows, 16);
  expectOnePicture(cells, kPitch_m);
  zone_.panelsAcross = 4;
  const ZoneCells row = cellsOf(show_, mapPixels(show_), zone_);
  EXPECT_EQ(row.columns, 32);
  EXPECT_EQ(row.rows, 8);
  zone_.panelsAcross = 3;
  const ZoneCells ragged = cellsOf(show_, mapPixels(show_), zone_);
  EXPECT_EQ(ragged.columns, 24);
  EXPECT_EQ(ragged.rows, 16);
}

TEST_F(Panels, AreSeenAsTheyHangHoweverTheyAreListedAndTurned) {
  zone_.panelsAcross = 0;
  change(1, [this](Fixture& panel) {
    panel.place.rotation_deg = {90, 180, 0};
    place(panel, 1, 1, 0);
  });
  std::swap(zone_.parts[0], zone_.parts[3]);
  const ZoneCells cells = cellsOf(show_, mapPixels(show_), zone_);
  EXPECT_EQ(cells.columns, 16);
  EXPECT_EQ(cells.rows, 16);
  expectOnePicture(cells, kPitch_m);
}

TEST_F(Panels, GapsCountOrNot) {
  zone_.panelsAcross = 0;
  for (int i = 0; i < 4; ++i)
    change(i, [&](Fixture& panel) { place(panel, i % 2, i < 2 ? 1 : 0, 3 * kPitch_m); });
  const ZoneCells closed = cellsOf(show_, mapPixels(show_), zone_);
  EXPECT_EQ(closed.columns, 16);
  EXPECT_EQ(closed.rows, 16);
  zone_.countsGaps = true;
  const ZoneCells open = cellsOf(show_, mapPixels(show_), zone_);
  EXPECT_EQ(open.columns, 19);
  EXPECT_EQ(open.rows, 19);
  expectOnePicture(open, kPitch_m);
}

TEST_F(Panels, APictureLiesOverAllOfThem) {
  const ZoneCells cells = cellsOf(show_, mapPixels(show_), zone_);
  auto media = std::make_shared<Media>(Media{16, 16, 0, 1, {}});
  for (int y = 0; y < 16; ++y)
    for (int x = 0; x < 16; ++x)
      media->rgba.insert(media->rgba.end(),
                         {static_cast<std::uint8_t>(x * 16), static_cast<std::uint8_t>(y * 16), 0, 255});
  MediaLibrary library;
  library.add("face", media);
  const LightBuffer light =
      test::run(*findEffect("picture"), cells, 0,
                {{"file", std::string("face")}, {"fit", std::string("stretch")}}, library);
  const PixelMap map = mapPixels(show_);
  for (int i = 0; i < cells.count(); ++i) {
    const Vec3& p = map.positions[cells.pixelsOf(i)[0]];
    const auto at = static_cast<std::size_t>(i);
    const auto x = std::lround((p.x + 3.5 * kPitch_m) / kPitch_m),
               z = std::lround((p.z + 3.5 * kPitch_m) / kPitch_m);
    EXPECT_NEAR(light.r[at], linearFromSrgb(static_cast<float>(x * 16) / 255), 1e-4f) << i;
    EXPECT_NEAR(light.g[at], linearFromSrgb(static_cast<float>((15 - z) * 16) / 255), 1e-4f) << i;
  }
}

/// Whatever hangs wherever, no zone takes more room than a zone may.
TEST_F(Panels, FarApartTheyTakeNoMoreRoomThanAZoneMay) {
  zone_.panelsAcross = 0;
  zone_.countsGaps = true;
  for (int i = 0; i < 4; ++i) change(i, [&](Fixture& panel) { place(panel, i % 2, i < 2 ? 1 : 0, 900); });
  const ZoneCells cells = cellsOf(show_, mapPixels(show_), zone_);
  EXPECT_EQ(cells.count(), 256);
  EXPECT_LE(static_cast<std::int64_t>(cells.columns) * cells.rows, limits::kMaxPlacesOfZone);
}

/// A matrix of 24 × 16 goes onto two ports, 230 pixels on the first and 154 on the second.
TEST(OneMatrix, GoesOntoTwoPortsWhereverItIsCut) {
  Show show;
  StripType type;
  type.id = show.newId<StripTypeId>();
  put(show.stripTypes, type);
  const FixtureId matrix = show.newId<FixtureId>();
  put(show.fixtures, Fixture{matrix, "Matrix", type.id, {}, {{"face", GridShape{24, 16, 0.02, 0.02}, {}}}});
  Controller box;
  box.id = show.newId<ControllerId>();
  box.host = "127.0.0.9";
  box.ports.resize(2);
  box.ports[0].run.push_back({matrix, 0, 230});
  box.ports[1].run.push_back({matrix, 230, 154});
  put(show.controllers, box);
  int first = 0, second = 0;
  for (const PatchSpan& span : derivePatch(show).spans) (span.port == 0 ? first : second) += span.pixels;
  EXPECT_EQ(first, 230);
  EXPECT_EQ(second, 154);
}

}  // namespace
}  // namespace chispa
