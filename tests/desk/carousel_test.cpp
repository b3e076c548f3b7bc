// SPDX-License-Identifier: GPL-3.0-or-later
#include "carousel/carousel.h"

#include "window.h"

namespace chispa::desk {
namespace {

/// A maker who counts what they do: a click, a drag, a turn of the wheel, or a value typed into a field.
class BuildingTest : public WindowTest {
 protected:
  BuildingTest() {
    window_.resize(1280, 800);
    window_.showWorkspace(Workspace::Plan);
    QCoreApplication::processEvents();
  }
  PlanView& plan() { return window_.planPage().view(); }

  void click(const char* button) {
    ++actions_;
    press(button);
  }
  void dragTo(Vec3 from, Vec3 to) {
    ++actions_;
    expectInView(from);
    expectInView(to);
    drag(&plan(), plan().toScreen(from), plan().toScreen(to));
  }
  void clickAt(Vec3 at) {
    ++actions_;
    expectInView(at);
    QTest::mouseClick(&plan(), Qt::LeftButton, {}, plan().toScreen(at).toPoint());
    QCoreApplication::processEvents();
  }
  void enter(const char* field, double value) {
    ++actions_;
    setNumber(field, value);
  }
  void pick(const char* field, const char* words) {
    ++actions_;
    choose(field, QLatin1String(words));
  }
  void zoomOut() {
    ++actions_;
    QWheelEvent wheel(QPointF(plan().rect().center()), plan().mapToGlobal(QPointF(plan().rect().center())),
                      {}, {0, -400}, Qt::NoButton, Qt::ControlModifier, Qt::NoScrollPhase, false);
    QApplication::sendEvent(&plan(), &wheel);
  }
  void expectInView(Vec3 at) {
    EXPECT_TRUE(QRectF(plan().rect()).contains(plan().toScreen(at))) << at.x << ' ' << at.y << ' ' << at.z;
  }

  int actions_ = 0;
};

TEST_F(BuildingTest, TheCarouselTakesFewerThanSixtyActions) {
  // The rim, seen from above.
  click("toolRing");
  dragTo({0, 0, 0}, {3, 0, 0});
  pick("follows", "pixels per metre");
  enter("pixels", 300);
  enter("positionZ", 3.4);
  // Upright things are drawn from the front.
  click("sideFront");
  zoomOut();
  click("toolLine");  // a rib of the roof, twelve times
  dragTo({3, 0, 3.4}, {0.35, 0, 4.6});
  enter("pixels", 30);
  click("repeatAround");
  click("toolMatrix");  // a panel of the column, eight times
  dragTo({-0.35, 0, 0.8}, {0.35, 0, 2.6});
  enter("columns", 12);
  enter("rows", 20);
  enter("columnPitch", 0.06);
  enter("rowPitch", 0.09);
  pick("gridRuns", "along columns");
  enter("positionY", -0.92);
  enter("repeatCount", 8);
  click("repeatAround");
  click("toolMatrix");  // the booth's sign
  dragTo({4.05, 0, 1.7}, {5.75, 0, 2.3});
  enter("columns", 48);
  enter("rows", 16);
  enter("columnPitch", 0.035);
  enter("rowPitch", 0.035);
  pick("startCorner", "top left");
  enter("positionY", -1.6);
  click("toolLamp");  // six floods
  clickAt({4.2, 0, 0.3});
  enter("repeatFirst", 30);
  enter("repeatCount", 6);
  click("repeatAround");
  click("toolLamp");  // eight uplights
  clickAt({1.45, 0, 0.15});
  enter("repeatFirst", 22.5);
  enter("repeatCount", 8);
  click("repeatAround");
  click("toolLine");  // a post and its lantern, twelve times
  dragTo({2.6, 0, 0.4}, {2.6, 0, 3.0});
  enter("pixels", 26);
  click("nextSegment");
  click("sideTop");
  click("toolRing");
  dragTo({2.6, 0, 0}, {2.6, 0.4, 0});
  enter("pixels", 6);
  enter("radius", 0.08);
  enter("segmentX", 2.68);
  enter("repeatFirst", 15);
  click("repeatAround");
  click("toolRing");  // the edge of the path
  dragTo({0, 0, 0}, {0, 4.6, 0});
  enter("pixels", 300);
  enter("arcStart", 238.86);
  enter("arcSweep", 62.28);
  enter("positionZ", 0.05);
  EXPECT_LT(actions_, 60);
  RecordProperty("actions", actions_);

  const Show wanted = demo::carousel();
  ASSERT_EQ(show().fixtures.size(), wanted.fixtures.size());
  for (const auto& fixture : wanted.fixtures) {
    const auto points = positions(*fixture);
    const auto isThere = [&](const auto& built) {
      const auto others = positions(*built);
      return std::equal(points.begin(), points.end(), others.begin(), others.end(),
                        [](Vec3 a, Vec3 b) { return length(a - b) < 1e-6; });
    };
    EXPECT_EQ(std::count_if(show().fixtures.begin(), show().fixtures.end(), isThere), 1) << fixture->name;
  }
  while (document_.canUndo()) trigger("undo");
  EXPECT_TRUE(show().fixtures.empty());
}

}  // namespace
}  // namespace chispa::desk
