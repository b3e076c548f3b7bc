// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/preview/camera.h"

#include <random>

#include <gtest/gtest.h>

#include "core/edit/planedits.h"
#include "core/preview/unrolled.h"
#include "core/zone/pixelmap.h"

namespace chispa {
namespace {

std::vector<Vec3> cloud(unsigned seed, std::size_t count = 200) {
  std::mt19937 random(seed);
  std::uniform_real_distribution<double> place(-4, 4);
  std::vector<Vec3> points;
  for (std::size_t i = 0; i < count; ++i)
    points.push_back({place(random), place(random) * 0.5, place(random) * 0.25});
  return points;
}

TEST(Framing, HasEverythingInViewFromAnyShape) {
  for (unsigned seed = 1; seed < 20; ++seed)
    for (const double aspect : {0.5, 1.0, 1.6, 3.0}) {
      const auto points = cloud(seed);
      const int height = 400;
      const int width = static_cast<int>(height * aspect);
      const Projection projection(framing(points, aspect), width, height);
      for (const Vec3& point : points) {
        const auto spot = projection.spotOf(point);
        ASSERT_TRUE(spot) << seed;
        ASSERT_TRUE(spot->x > -1 && spot->x < static_cast<float>(width) + 1 && spot->y > -1 &&
                    spot->y < static_cast<float>(height) + 1)
            << seed << " " << aspect;
      }
    }
}

TEST(Framing, OfNothingOrOnePointIsStillACamera) {
  EXPECT_GT(framing({}, 1.6).distance_m, 0);
  const OrbitCamera one = framing({{3, 4, 5}}, 1.6);
  const auto spot = Projection(one, 160, 100).spotOf({3, 4, 5});
  ASSERT_TRUE(spot);
  EXPECT_NEAR(spot->x, 80, 2);
  EXPECT_NEAR(spot->y, 50, 2);
}

TEST(Projection, ManyAtOnceAreWhereEachIsByItself) {
  const auto points = cloud(3);
  OrbitCamera camera = framing(points, 1.6);
  camera.yaw_deg = 33;
  const Projection projection(camera, 640, 400);
  std::vector<float> x(points.size()), y(x), scale(x);
  projection.spotsOf(points, x.data(), y.data(), scale.data());
  for (std::size_t i = 0; i < points.size(); ++i) {
    const auto spot = projection.spotOf(points[i]);
    if (!spot) {
      EXPECT_EQ(scale[i], 0);
      continue;
    }
    EXPECT_NEAR(x[i], spot->x, 0.01);
    EXPECT_NEAR(y[i], spot->y, 0.01);
    EXPECT_NEAR(scale[i], spot->scale, spot->scale * 1e-4f);
  }
}

TEST(Projection, WhatLiesBehindTheViewerIsNotSeen) {
  const OrbitCamera camera{{0, 0, 0}, 0, 0, 10, 40};
  const Projection projection(camera, 640, 400);
  EXPECT_TRUE(projection.spotOf({0, 0, 0}));
  EXPECT_FALSE(projection.spotOf({0, -20, 0}));
}

TEST(Projection, RightIsRightUpIsUpAndNearIsLarge) {
  const Projection projection({{0, 0, 0}, 0, 0, 10, 40}, 640, 400);
  const auto middle = *projection.spotOf({0, 0, 0});
  EXPECT_GT(projection.spotOf({1, 0, 0})->x, middle.x);
  EXPECT_LT(projection.spotOf({0, 0, 1})->y, middle.y);
  EXPECT_GT(projection.spotOf({0, -5, 0})->scale, middle.scale);
  EXPECT_FLOAT_EQ(middle.x, 320);
  EXPECT_FLOAT_EQ(middle.y, 200);
}

TEST(Unrolled, ALineAFixtureAndTheRestInTheNext) {
  Show show;
  addFixture(show, LineShape{3, 0.1}, {});
  addFixture(show, LineShape{2, 0.1}, {0, 1, 0});
  PixelFrame frame;
  frame.resize(5);
  for (std::size_t i = 0; i < 5; ++i) frame.r[i] = 1;
  frame.r[1] = 0;
  std::vector<std::uint8_t> rgba;
  drawUnrolled(show, frame, 30, 20, rgba);
  ASSERT_EQ(rgba.size(), 30u * 20u * 4u);
  std::size_t lit = 0;
  for (std::size_t i = 0; i < rgba.size(); i += 4) lit += rgba[i] > 128 ? 1 : 0;
  EXPECT_GT(lit, 30u) << "four lit pixels of five are to be seen";
  EXPECT_LT(lit, 600u);
  // Of another size than the show's it is dark, not read beyond its end.
  frame.resize(2);
  drawUnrolled(show, frame, 30, 20, rgba);
  EXPECT_EQ(rgba.size(), 30u * 20u * 4u);
}

}  // namespace
}  // namespace chispa
