// SPDX-License-Identifier: GPL-3.0-or-later
// The line about what is selected on the plan.
#include "desk/plan/outline.h"

#include <cmath>
#include <random>

#include <gtest/gtest.h>

namespace chispa::desk {
namespace {

/// The area of a polygon (the shoelace formula).
double areaOf(const QPolygonF& polygon) {
  double twice = 0;
  for (int i = 0; i < polygon.size(); ++i) {
    const QPointF &a = polygon[i], &b = polygon[(i + 1) % polygon.size()];
    twice += a.x() * b.y() - a.y() * b.x();
  }
  return std::abs(twice) / 2;
}

double distanceToLine(QPointF p, QPointF a, QPointF b) {
  const QPointF along = b - a;
  const double share =
      std::clamp(QPointF::dotProduct(p - a, along) / QPointF::dotProduct(along, along), 0.0, 1.0);
  const QPointF off = p - (a + along * share);
  return std::hypot(off.x(), off.y());
}

double leastDistance(QPointF p, const QPolygonF& polygon) {
  double least = 1e9;
  for (int i = 0; i < polygon.size(); ++i)
    least = std::min(least, distanceToLine(p, polygon[i], polygon[(i + 1) % polygon.size()]));
  return least;
}

/// However points lie, all of them are within, and none comes nearer to the line than most of the margin.
TEST(Outline, KeepsItsDistanceFromAllPoints) {
  constexpr double kMargin = 8;
  std::mt19937 random(5);
  for (int round = 0; round < 200; ++round) {
    std::uniform_int_distribution<int> count(1, 40);
    std::uniform_real_distribution<> place(-200, 200);
    std::vector<QPointF> points;
    for (int n = count(random); n > 0; --n) points.emplace_back(place(random), place(random));
    const QPolygonF outline = outlineAbout(points, kMargin);
    for (const QPointF& point : points) {
      EXPECT_TRUE(outline.containsPoint(point, Qt::OddEvenFill)) << "round " << round;
      EXPECT_GT(leastDistance(point, outline), kMargin * 0.75) << "round " << round;
    }
  }
}

/// A slanting strip has a narrow outline, not a box of half the plan.
TEST(Outline, FollowsASlantingStrip) {
  std::vector<QPointF> strip;
  for (int i = 0; i <= 100; ++i) strip.emplace_back(i * 3, i * 3);
  const double length = std::hypot(300, 300);
  const double area = areaOf(outlineAbout(strip, 8));
  EXPECT_LT(area, (length + 16) * 16);
  EXPECT_GT(area, length * 16);
}

TEST(Outline, OfNothingIsNothing) {
  EXPECT_TRUE(outlineAbout({}, 8).isEmpty());
  // Points that fall together, as a post's do from above, are one.
  EXPECT_EQ(outlineAbout({{5, 5}, {5, 5}}, 8), outlineAbout({{5, 5}}, 8));
}

}  // namespace
}  // namespace chispa::desk
