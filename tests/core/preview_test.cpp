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
