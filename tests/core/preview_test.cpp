// SPDX-License-Identifier: GPL-3.0-or-later
#include "carousel/carousel.h"
#include <gtest/gtest.h>

#include "core/preview/clippicture.h"
#include "core/preview/glow.h"

namespace chispa {
namespace {

TEST(Camera, FramingHasEverythingInView) {
  const PixelMap map = mapPixels(demo::carousel());
  const OrbitCamera camera = framing(map.positions, 1.6);
  const Projection projection(camera, 800, 500);
  for (const Vec3& point : map.positions) {
    const auto spot = projection.spotOf(point);
    ASSERT_TRUE(spot);
    EXPECT_TRUE(spot->x > 0 && spot->x < 800 && spot->y > 0 && spot->y < 500);
  }
}

TEST(Camera, WhatLiesBehindTheViewerIsNotSeen) {
  OrbitCamera camera;
  camera.pitch_deg = 0;
  camera.distance_m = 2;
  EXPECT_FALSE(Projection(camera, 100, 100).spotOf({0, -5, 0}));
  EXPECT_TRUE(Projection(camera, 100, 100).spotOf({0, 5, 0}));
}

TEST(Glow, ALitPixelIsBrightInItsColourWhereItStands) {
  PixelMap map;
  map.positions = {{0, 0, 0}};
  map.lampSize = {1};
  PixelFrame frame;
  frame.resize(1);
  frame.r[0] = 1;
  OrbitCamera camera;
  camera.distance_m = 3;
  std::vector<std::uint8_t> rgba(200 * 100 * 4);
  GlowPainter painter;
  painter.paint(map, frame, camera, 200, 100, rgba.data());
  const std::uint8_t* middle = &rgba[4 * (50 * 200 + 100)];
  EXPECT_GT(middle[0], 150);
  EXPECT_GT(middle[0], middle[2] + 80);
  EXPECT_LT(rgba[0], 10) << "the corner is night";
}

TEST(Glow, AFrameOfAnotherSizeDrawsAsDark) {
  PixelMap map;
  map.positions = {{0, 0, 0}};
  map.lampSize = {1};
  std::vector<std::uint8_t> rgba(64 * 64 * 4);
  GlowPainter painter;
  painter.paint(map, PixelFrame{}, {}, 64, 64, rgba.data());
  EXPECT_LT(*std::max_element(rgba.begin(), rgba.begin() + 3), 60);
}

/// A lamp low over the floor makes a small bright spot, one that hangs high a wide faint one.
TEST(SurfaceLight, IsWiderAndFainterTheHigherALampHangs) {
  const auto floorOf = [](double height_m) {
    PixelMap map;
    map.positions = {{0, 0, 0}, {0, 0, height_m}};
    map.lampSize = {1, 3};
    PixelFrame frame;
    frame.resize(2);
    frame.r[1] = 1;
    SurfaceLight floor(SurfaceLight::Surface::Floor);
    floor.gather(map, frame);
    EXPECT_EQ(floor.level_m(), 0);
    EXPECT_EQ(floor.at({0, 0, 0})[2], 0) << "in its colour";
    EXPECT_EQ(floor.at({40, 0, 0})[0], 0);
    return std::pair(floor.at({0, 0, 0})[0], floor.at({1.2, 0, 0})[0]);
  };
  const auto low = floorOf(0.2), high = floorOf(2.5);
  EXPECT_GT(low.first, 3 * high.first);
  EXPECT_GT(high.second, low.second);
  EXPECT_GT(high.second, 0.3f * high.first);
}

/// A flood that stands before a wall is seen on it, and the farther it stands, the wider.
TEST(SurfaceLight, OfAWallIsWiderTheFartherALampStands) {
  const auto wallOf = [](double before_m) {
    PixelMap map;
    map.positions = {{0, 1, 1}, {0, 1 - before_m, 1}};
    map.lampSize = {1, 3};
    PixelFrame frame;
    frame.resize(2);
    frame.b[1] = 1;
    SurfaceLight wall(SurfaceLight::Surface::Wall);
    wall.gather(map, frame);
    EXPECT_GT(wall.level_m(), 1) << "behind everything";
    return std::pair(wall.at({0, 0, 1})[2], wall.at({1.4, 0, 1})[2]);
  };
  const auto close = wallOf(0), far = wallOf(2.5);
  EXPECT_GT(close.first, far.first);
  EXPECT_GT(far.second, close.second);
}

TEST(Camera, SeesTheWallWhereItIs) {
  OrbitCamera camera;
  camera.distance_m = 5;
  const Projection projection(camera, 320, 200);
  const auto spot = projection.spotOf({0.7, 1.5, -0.4});
  ASSERT_TRUE(spot);
  const auto back = projection.onWall(static_cast<double>(spot->x), static_cast<double>(spot->y), 1.5);
  ASSERT_TRUE(back);
  EXPECT_NEAR(back->x, 0.7, 1e-3);
  EXPECT_NEAR(back->z, -0.4, 1e-3);
  EXPECT_FALSE(projection.onWall(160, 100, -20)) << "behind the viewer";
}

TEST(Camera, SeesTheFloorWhereItIs) {
  OrbitCamera camera;
  camera.distance_m = 5;
  camera.target = {0, 0, 1};
  const Projection projection(camera, 320, 200);
  for (const Vec3 place : {Vec3{0, 0, 0}, Vec3{1, -0.5, 0}, Vec3{-1.2, 1, 0}}) {
    const auto spot = projection.spotOf(place);
    ASSERT_TRUE(spot);
    const auto back = projection.onFloor(static_cast<double>(spot->x), static_cast<double>(spot->y), 0);
    ASSERT_TRUE(back);
    EXPECT_NEAR(back->x, place.x, 1e-3);
    EXPECT_NEAR(back->y, place.y, 1e-3);
  }
  EXPECT_FALSE(projection.onFloor(160, 1, 0)) << "above the horizon";
}

/// What is bright is white in the middle, what is dim has its colour; and what is off adds nothing to light.
TEST(Glow, BrightCoresBleach) {
  PixelMap map;
  map.positions = {{0, 0, 0}};
  map.lampSize = {4};
  OrbitCamera camera;
  camera.distance_m = 1.2;
  const auto middleAt = [&](float red) {
    PixelFrame frame;
    frame.resize(1);
    frame.r[0] = red;
    std::vector<std::uint8_t> rgba(200 * 100 * 4);
    GlowPainter painter;
    painter.paint(map, frame, camera, 200, 100, rgba.data());
    const std::uint8_t* dot = &rgba[4 * (50 * 200 + 100)];
    return std::array<int, 3>{dot[0], dot[1], dot[2]};
  };
  const auto bright = middleAt(1), dim = middleAt(0.1f);
  EXPECT_GT(bright[1], 60);
  EXPECT_EQ(dim[1], 0) << "no overlay where there is light";
  EXPECT_GT(dim[0], 40);
  EXPECT_GT(middleAt(0)[1], 5) << "what is off can be seen";
}

TEST(ClipPicture, ShowsTimeToTheRightAndCellsUpward) {
  Show show;
  put(show.fixtures, Fixture{FixtureId{1}, "Line", {}, {}, {{"line", LineShape{20, 0.1}, {}}}});
  put(show.zones, Zone{ZoneId{2}, "Line", {{FixtureId{1}, std::nullopt, false}}, ZoneLayout::Strand, 1});
  put(show.palettes, Palette{PaletteId{3}, "Green", {{0, {0, 255, 0}}}});
  const ZoneCells cells = cellsOf(show, mapPixels(show), *show.zones[0]);
  Clip clip;
  clip.effect = "pour";
  clip.length = Micros(1'000'000);
  clip.params["edge"] = 0.001;
  const CompiledClip compiled = compileClip(clip, tableOf(show, PaletteId{3}), {});
  const ClipPicture picture = drawClips({}, std::span(&compiled, 1), cells, {Micros(0), clip.length}, 40, 20);
  const auto green = [&](int x, int row) {
    return picture.rgba[4 * static_cast<std::size_t>((19 - row) * 40 + x) + 1];
  };
  EXPECT_EQ(green(20, 2), 255) << "half way through, the lower cells are full";
  EXPECT_EQ(green(20, 17), 0);
  EXPECT_EQ(green(39, 17), 255);
  EXPECT_EQ(green(0, 2), 0);
}

}  // namespace
}  // namespace chispa
