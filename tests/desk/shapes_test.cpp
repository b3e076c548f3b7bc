// SPDX-License-Identifier: GPL-3.0-or-later
#include <fstream>

#include "window.h"

namespace chispa::desk {
namespace {

/// Each drawing tool makes its shape by one drag on the plan.
TEST_F(WindowTest, EveryToolDrawsItsShape) {
  PlanView& plan = window_.planPage().view();
  window_.showWorkspace(Workspace::Plan);
  const std::pair<const char*, std::string_view> tools[] = {
      {"toolLine", "line"},     {"toolMatrix", "grid"}, {"toolRing", "arc"},     {"toolRings", "rings"},
      {"toolSpiral", "spiral"}, {"toolCone", "cone"},   {"toolSpokes", "spokes"}};
  for (const auto& [tool, name] : tools) {
    const std::size_t before = show().fixtures.size();
    press(tool);
    drag(&plan, plan.toScreen({0, 0, 0}), plan.toScreen({0.6, 0.5, 0}));
    ASSERT_EQ(show().fixtures.size(), before + 1) << tool;
    EXPECT_EQ(shapeName(show().fixtures.back()->segments[0].shape), name);
    EXPECT_GT(pixelCount(*show().fixtures.back()), 1) << tool;
    EXPECT_EQ(selection_.fixtures(), FixtureIds{show().fixtures.back()->id});
  }
  while (document_.canUndo()) trigger("undo");
  EXPECT_TRUE(show().fixtures.empty());
}

TEST_F(WindowTest, APathIsClickedCornerByCorner) {
  PlanView& plan = window_.planPage().view();
  window_.showWorkspace(Workspace::Plan);
  press("toolPath");
  for (const Vec3 corner : {Vec3{0, 0, 0}, Vec3{1, 0, 0}, Vec3{1, 1, 0}})
    QTest::mouseClick(&plan, Qt::LeftButton, {}, plan.toScreen(corner).toPoint());
  QTest::keyClick(&plan, Qt::Key_Return);
  ASSERT_EQ(show().fixtures.size(), 1u);
  const auto& path = std::get<PathShape>(show().fixtures[0]->segments[0].shape);
  EXPECT_EQ(path.corners.size(), 3u);
  EXPECT_EQ(path.count, 120) << "two metres at 60 a metre";
}

TEST_F(WindowTest, TwelvePostsInACircleInOneStep) {
  PlanView& plan = window_.planPage().view();
  window_.showWorkspace(Workspace::Plan);
  press("toolLine");
  drag(&plan, plan.toScreen({1, 0, 0}), plan.toScreen({1.5, 0, 0}));
  type("fixtureName", QStringLiteral("Post 1"));
  setNumber("repeatCount", 12);
  press("repeatAround");
  ASSERT_EQ(show().fixtures.size(), 12u);
  EXPECT_TRUE(findNamed(show().fixtures, "Post 12"));
  const Vec3 third = show().fixtures[3]->place.position_m;
  EXPECT_NEAR(third.x, 0, 1e-9);
  EXPECT_NEAR(third.y, 1, 0.06);
  trigger("undo");
  EXPECT_EQ(show().fixtures.size(), 1u);
}

TEST_F(WindowTest, PointsComeInFromATableAndGoOutAgain) {
  const auto file = folder_.path() / "holes.csv";
  std::ofstream(file) << "x;y\n0;0\n100;0\n100;50\n";
  window_.planPage().importPoints(QString::fromStdString(file.string()), 0.001);
  ASSERT_EQ(show().fixtures.size(), 1u);
  EXPECT_EQ(positions(*show().fixtures[0]), (std::vector<Vec3>{{0, 0, 0}, {0.1, 0, 0}, {0.1, 0.05, 0}}));
  const auto out = folder_.path() / "out.csv";
  window_.planPage().exportPoints(QString::fromStdString(out.string()));
  std::ifstream in(out);
  std::string heading;
  std::getline(in, heading);
  EXPECT_EQ(heading, "x_m,y_m,z_m");
  const Show before = show();
  std::ofstream(file) << "x;y\n0;zero\n";
  window_.planPage().importPoints(QString::fromStdString(file.string()));
  EXPECT_EQ(show(), before);
  ASSERT_EQ(told_.size(), 1);
  EXPECT_TRUE(told_[0].contains(QStringLiteral("Line 2")));
}

}  // namespace
}  // namespace chispa::desk
