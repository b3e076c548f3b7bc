// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/edit/curveedits.h"

#include <gtest/gtest.h>

namespace chispa {
namespace {

TEST(CurveEdits, PointsStayInOrder) {
  Curve curve = {{0, 0}, {1, 1}};
  EXPECT_EQ(addPoint(curve, {0.5, 2}), 1u);
  EXPECT_EQ(curve[1], (CurvePoint{0.5, 1})) << "brought into its range";
  movePoint(curve, 1, {3, 0.2});
  EXPECT_EQ(curve[1], (CurvePoint{1, 0.2})) << "not past its neighbour";
  movePoint(curve, 1, {0.25, -1});
  EXPECT_EQ(curve[1], (CurvePoint{0.25, 0}));
  EXPECT_DOUBLE_EQ(curveAt(curve, 0.625), 0.5);
  EXPECT_EQ(curveAt(curve, -1), 0);
  EXPECT_EQ(curveAt(curve, 2), 1);
  EXPECT_EQ(curveAt({}, 0.5), 0);
}

TEST(CurveEdits, AreWrittenAndReadAsWords) {
  const Curve curve = {{0, 0.2}, {0.125, 1}, {1, 0}};
  EXPECT_EQ(curveText(curve), "0:20 12.5:100 100:0");
  EXPECT_EQ(parseCurve(curveText(curve)), curve);
  EXPECT_EQ(parseCurve("100:0 0:50"), (Curve{{0, 0.5}, {1, 0}})) << "in any order";
  for (const char* nonsense : {"", "  ", "half", "0:", "0:101", "-1:0", "0;5", "0:5 x", "0:nan"})
    EXPECT_FALSE(parseCurve(nonsense)) << nonsense;
}

}  // namespace
}  // namespace chispa
