// SPDX-License-Identifier: GPL-3.0-or-later
#include <fstream>

#include "window.h"
#include <QCheckBox>
#include <QListWidget>

#include "core/edit/planedits.h"
#include "core/edit/zoneedits.h"
#include "core/zone/cells.h"
#include "desk/plan/plansheet.h"

namespace chispa::desk {
namespace {

/// The carousel lies on the plan.
class PlanTest : public WindowTest {
 protected:
  PlanTest() {
    window_.resize(1280, 800);
    EXPECT_TRUE(window_.openFile(QStringLiteral(CHISPA_SOURCE_DIR "/demo/carousel.chispa")));
    window_.showWorkspace(Workspace::Plan);
    settle();
    plan().frameAll();
  }
  PlanView& plan() { return window_.planPage().view(); }
  FixtureId fixtureId(const std::string& name) const { return findNamed(show().fixtures, name)->id; }
  const Fixture& fixture(FixtureId id) const { return *find(show().fixtures, id); }
  ZoneCells cells(const std::string& zone) const {
    const Zone* found = findNamed(show().zones, zone);
    EXPECT_TRUE(found) << zone;
    return found ? cellsOf(show(), mapPixels(show()), *found) : ZoneCells{};
  }
  void selectZone(const std::string& name) { selection_.select(findNamed(show().zones, name)->id); }
  void stroke(QPointF from, QPointF to, Qt::KeyboardModifiers keys = {}) {
    QTest::mousePress(&plan(), Qt::LeftButton, keys, from.toPoint());
    for (int i = 1; i <= 8; ++i) QTest::mouseMove(&plan(), (from + (to - from) * i / 8).toPoint());
    QTest::mouseRelease(&plan(), Qt::LeftButton, keys, to.toPoint());
    QCoreApplication::processEvents();
  }
};

TEST_F(PlanTest, BoxPaintsANewZoneAndShiftTakesAway) {
  selection_.clear();
  const Show before = show();
  press("toolBox");
  stroke(plan().toScreen({-2.6, -3.8, 0}), plan().toScreen({2.6, -4.7, 0}));
  EXPECT_EQ(cells("Painted").count(), 301) << "the path's edge, and the flood behind it";
  const auto whole = cells("Painted");
  stroke(plan().toScreen({0, -4.4, 0}), plan().toScreen({2.6, -4.8, 0}), Qt::ShiftModifier);
  EXPECT_LT(cells("Painted").count(), 301);
  EXPECT_GT(cells("Painted").count(), 100);
  trigger("undo");
  EXPECT_EQ(cells("Painted").pixels, whole.pixels);
  trigger("undo");
  EXPECT_EQ(show(), before);
}

TEST_F(PlanTest, LassoAndBrushAddToTheSelectedZone) {
  selectZone("Path edge");
  press("toolLasso");
  const QPointF flood = plan().toScreen({3.637, 2.1, 0});
  QTest::mousePress(&plan(), Qt::LeftButton, {}, (flood + QPointF(-20, -20)).toPoint());
  for (const QPointF& corner : {QPointF(20, -20), QPointF(20, 20), QPointF(-20, 20)})
    QTest::mouseMove(&plan(), (flood + corner).toPoint());
  QTest::mouseRelease(&plan(), Qt::LeftButton, {}, (flood + QPointF(-20, 20)).toPoint());
  EXPECT_EQ(cells("Path edge").count(), 301);
  press("toolBrush");
  const QPointF other = plan().toScreen({-3.637, 2.1, 0});
  stroke(other, other + QPointF(2, 2));
  EXPECT_EQ(cells("Path edge").count(), 302);
  QTest::keyClick(&plan(), Qt::Key_Escape);
  EXPECT_EQ(plan().tool(), PlanTool::Select);
}

TEST_F(PlanTest, TheUnrolledGridIsPaintedRowByRow) {
  selection_.select(FixtureIds{fixtureId("Panel 1")});
  press("makeZone");
  press("sideUnrolled");
  EXPECT_EQ(plan().side(), PlanSide::Unrolled);
  selection_.clear();
  press("toolBox");
  // The bottom row of the panel: twelve cells, 0.1 apart in the unrolled plan.
  const auto at = [&](double column, double row) {
    return plan().toScreen(QPointF(column * 0.1, row * 0.1));
  };
  stroke(at(-0.5, -0.5), at(11.5, 0.5));
  const ZoneCells row = cells("Painted");
  ASSERT_EQ(row.count(), 12);
  for (const Vec3& p : row.position_m) EXPECT_NEAR(p.z, 0.845, 1e-6);
}

TEST_F(PlanTest, AZoneIsDividedFromTheInspector) {
  selectZone("Column");
  choose("divideBy", QStringLiteral("parts across"));
  setNumber("divideCount", 4);
  type("divideName", QStringLiteral("Face"));
  choose("divideNumbers", QStringLiteral("A, B"));
  const std::size_t before = show().zones.size();
  press("divideZone");
  EXPECT_EQ(show().zones.size(), before + 4);
  EXPECT_EQ(cells("Face C").columns, 24);
  trigger("undo");
  EXPECT_EQ(show().zones.size(), before);
  selectZone("Canopy rim");
  press("mirrorZone");
  EXPECT_EQ(cells("Canopy rim mirrored").count(), 150);
}

TEST_F(PlanTest, PartsAreRearrangedByKeysAndTheCentreByAClick) {
  selectZone("Posts");
  auto* parts = the<QListWidget>("zoneParts");
  ASSERT_EQ(parts->count(), 12);
  parts->setCurrentRow(0);
  QTest::keyClick(parts, Qt::Key_Down, Qt::ControlModifier);
  EXPECT_EQ(findNamed(show().zones, "Posts")->parts[1].fixture, fixtureId("Post 1"));
  selectZone("Canopy rim");
  press("pickCentre");
  QTest::mouseClick(&plan(), Qt::LeftButton, {}, plan().toScreen({1, 1, 0}).toPoint());
  ASSERT_TRUE(findNamed(show().zones, "Canopy rim")->centre_m);
  EXPECT_NEAR(findNamed(show().zones, "Canopy rim")->centre_m->x, 1, 0.06);
  press("middleCentre");
  EXPECT_FALSE(findNamed(show().zones, "Canopy rim")->centre_m);
}

TEST_F(PlanTest, AZoneCanBelongToOneScore) {
  selectZone("Post 5");
  choose("zoneScore", QStringLiteral("only The Slow Round"));
  EXPECT_EQ(findNamed(show().zones, "Post 5")->score, show().scores[0]->id);
  auto* list = the<QListWidget>("zoneList");
  const auto items = list->findItems(QStringLiteral("Post 5"), Qt::MatchStartsWith);
  ASSERT_EQ(items.size(), 1);
  EXPECT_TRUE(items[0]->toolTip().contains(QStringLiteral("only in The Slow Round")));
}

TEST_F(PlanTest, SegmentsAreWalkedSplitTurnedAndJoined) {
  const FixtureId rib = fixtureId("Rib 1");
  selection_.select(FixtureIds{rib});
  setNumber("walkPixel", 11);
  EXPECT_EQ(selection_.pixel(), std::optional(10));
  press("splitSegment");
  ASSERT_EQ(fixture(rib).segments.size(), 2u);
  EXPECT_EQ(pixelCount(fixture(rib).segments[0]), 10);
  choose("segment", QStringLiteral("2"));
  type("segmentName", QStringLiteral("tip"));
  EXPECT_EQ(fixture(rib).segments[1].name, "tip");
  the<QCheckBox>("segmentReversed")->click();
  EXPECT_TRUE(fixture(rib).segments[1].reversed);
  press("segmentEarlier");
  EXPECT_EQ(fixture(rib).segments[0].name, "tip");
  press("joinSegment");
  EXPECT_EQ(fixture(rib).segments.size(), 1u);
  EXPECT_EQ(pixelCount(fixture(rib)), 30);
}

TEST_F(PlanTest, WhatACountCannotKeepIsToldFirst) {
  QStringList losses;
  bool answer = false;
  document_.mayLose = [&](const QString&, const Losses& told) {
    for (const auto& loss : told) losses << QString::fromStdString(loss);
    return answer;
  };
  selection_.select(FixtureIds{fixtureId("Canopy rim")});
  const Show before = show();
  setNumber("pixels", 200);
  EXPECT_TRUE(losses.join(QLatin1Char('\n')).contains(QStringLiteral("Zone Rim mirrored loses")))
      << losses.join(QLatin1Char('\n')).toStdString();
  EXPECT_EQ(show(), before) << "nothing happens without a yes";
  EXPECT_EQ(the<QDoubleSpinBox>("pixels")->value(), 300) << "the field shows what is";
  answer = true;
  setNumber("pixels", 200);
  EXPECT_EQ(pixelCount(fixture(fixtureId("Canopy rim"))), 200);
  trigger("undo");
  EXPECT_EQ(show(), before);
}

TEST_F(PlanTest, GroupsMoveTogetherAndAreAligned) {
  const FixtureIds two{fixtureId("Flood 1"), fixtureId("Flood 3")};
  selection_.select(two);
  trigger("group");
  selection_.clear();
  const QPointF at = plan().toScreen(positions(fixture(two[0]))[0]);
  const Vec3 before = positions(fixture(two[1]))[0];
  drag(&plan(), at, at + QPointF(60, 0));
  EXPECT_GT(positions(fixture(two[1]))[0].x, before.x + 0.3);
  EXPECT_EQ(selection_.fixtures().size(), 2u);
  press("alignTop");
  EXPECT_NEAR(positions(fixture(two[0]))[0].y, positions(fixture(two[1]))[0].y, 1e-9);
  press("alignLeft");
  EXPECT_NEAR(positions(fixture(two[0]))[0].x, positions(fixture(two[1]))[0].x, 1e-9);
  trigger("ungroup");
  EXPECT_TRUE(fixture(two[0]).group.empty());
}

TEST_F(PlanTest, MirroringSwapsLeftAndRight) {
  selection_.select(FixtureIds{fixtureId("Flood 1"), fixtureId("Booth sign")});
  const auto sign = positions(fixture(fixtureId("Booth sign")));
  press("mirrorAcross");
  const auto image = positions(fixture(fixtureId("Booth sign")));
  EXPECT_NEAR(sign[0].x - sign[1].x, image[1].x - image[0].x, 1e-6);
  EXPECT_NEAR(image[0].z, sign[0].z, 1e-6);
}

TEST_F(PlanTest, TheFreeViewTurnsAndMeasuringChangesNothing) {
  press("sideFree");
  const QPointF before = plan().toScreen({3, 0, 3.4});
  QTest::mousePress(&plan(), Qt::RightButton, {}, {300, 300});
  QTest::mouseMove(&plan(), {380, 340});
  QTest::mouseRelease(&plan(), Qt::RightButton, {}, {380, 340});
  EXPECT_GT((plan().toScreen({3, 0, 3.4}) - before).manhattanLength(), 5);
  const Show same = show();
  press("toolMeasure");
  stroke({200, 200}, {300, 260});
  EXPECT_FALSE(plan().grab().isNull());
  EXPECT_EQ(show(), same);
}

TEST_F(PlanTest, ThePlanIsWrittenForTheWall) {
  for (const char* name : {"plan.pdf", "plan.svg"}) {
    const auto file = folder_.path() / name;
    window_.planPage().exportPlan(QString::fromStdString(file.string()));
    std::ifstream in(file);
    const std::string content{std::istreambuf_iterator<char>(in), {}};
    EXPECT_GT(content.size(), 20'000u) << name;
    if (file.extension() != ".svg") continue;
    EXPECT_NE(content.find("Canopy rim"), std::string::npos);
    EXPECT_NE(content.find("12 × 26 px, along 2.60 m"), std::string::npos) << "the cut list";
    EXPECT_NE(content.find("1 : 40 on A3"), std::string::npos);
  }
  window_.planPage().exportPlan(QStringLiteral("/nowhere/plan.pdf"));
  ASSERT_EQ(told_.size(), 1);
  EXPECT_TRUE(told_[0].contains(QStringLiteral("/nowhere/plan.pdf")));
}

TEST_F(PlanTest, ZonesAreCopiedToAPieceOfLikeShape) {
  document_.apply(QStringLiteral("foot"), [this](Show& s) {
    Zone foot{{}, "Panel 1 foot", {{fixtureId("Panel 1"), std::nullopt, false, {{0, 3, 20}}}}};
    addZone(s, foot);
  });
  selection_.select(FixtureIds{fixtureId("Panel 1")});
  trigger("copyZones");
  selection_.select(FixtureIds{fixtureId("Panel 2"), fixtureId("Panel 3")});
  trigger("pasteZones");
  EXPECT_EQ(cells("Panel 3 foot").count(), 3);
  selection_.select(FixtureIds{fixtureId("Post 1")});
  const Show before = show();
  trigger("pasteZones");
  EXPECT_EQ(show(), before);
  ASSERT_EQ(told_.size(), 1);
  EXPECT_TRUE(told_[0].contains(QStringLiteral("do not fit Post 1")));
}

TEST_F(WindowTest, HolesAndLinesOfADrawingBecomeFixtures) {
  const auto file = folder_.path() / "panel.svg";
  std::ofstream(file)
      << R"svg(<svg width="100mm" height="100mm" viewBox="0 0 100 100"><circle id="led2" cx="10" cy="90" r="2"/><circle id="led1" cx="60" cy="90" r="2"/>
    <path d="M0 0H100"/><path d="M0 10H50"/></svg>)svg";
  const QString path = QString::fromStdString(file.string());
  window_.planPage().importSvg(path, SvgImport{true, HoleOrder::ById, 0});
  ASSERT_EQ(show().fixtures.size(), 1u);
  EXPECT_EQ(show().fixtures[0]->name, "panel");
  const auto points = positions(*show().fixtures[0]);
  ASSERT_EQ(points.size(), 2u);
  EXPECT_NEAR(points[0].x - points[1].x, 0.05, 1e-9) << "led1 comes first";
  window_.planPage().importSvg(path, SvgImport{false, HoleOrder::Nearest, 0});
  ASSERT_EQ(show().fixtures.size(), 2u);
  EXPECT_EQ(show().fixtures[1]->segments.size(), 2u);
  EXPECT_EQ(pixelCount(show().fixtures[1]->segments[0]), 6) << "0.1 m at 60 a metre";
  const Show before = show();
  std::ofstream(file) << "<svg><path d='M 0 0 L'/></svg>";
  window_.planPage().importSvg(path, SvgImport{});
  EXPECT_EQ(show(), before);
  EXPECT_EQ(told_.size(), 1);
}

TEST_F(WindowTest, LettersBecomeStripAndAPictureLiesBeneath) {
  window_.planPage().addLettering(LetteringWish{QStringLiteral("IO"), QStringLiteral("Noto Sans"), 0.5});
  ASSERT_EQ(show().fixtures.size(), 1u);
  EXPECT_EQ(show().fixtures[0]->segments.size(), 3u) << "an I, and an O within an O";
  QRectF extent;
  for (const Vec3& p : positions(*show().fixtures[0])) extent |= QRectF(p.x, p.y, 1e-4, 1e-4);
  EXPECT_NEAR(extent.height(), 0.5, 0.05);

  const auto file = folder_.path() / "photo.png";
  QImage photo(200, 100, QImage::Format_RGB32);
  photo.fill(Qt::darkGreen);
  ASSERT_TRUE(photo.save(QString::fromStdString(file.string())));
  window_.planPage().addUnderlay(QString::fromStdString(file.string()));
  ASSERT_EQ(show().underlays.size(), 1u);
  setNumber("underlayOpacity", 1);
  PlanView& plan = window_.planPage().view();
  const Underlay underlay = *show().underlays[0];
  const QPoint inside =
      plan.toScreen(underlay.position_m + Vec3{20 * underlay.scale_m, 20 * underlay.scale_m, 0}).toPoint();
  EXPECT_EQ(plan.grab().toImage().pixelColor(inside), QColor(Qt::darkGreen));
  // Moved by hand while it is selected.
  const QPointF middle = plan.toScreen(underlay.position_m);
  drag(&plan, middle + QPointF(0, 60), middle + QPointF(50, 60));
  EXPECT_GT(show().underlays[0]->position_m.x, underlay.position_m.x);
  trigger("delete");
  EXPECT_TRUE(show().underlays.empty());
  window_.planPage().addUnderlay(QStringLiteral("/nowhere.png"));
  EXPECT_EQ(told_.size(), 1);
}

TEST_F(WindowTest, AFixtureIsDrawnSegmentBySegmentAndTakenApart) {
  PlanView& plan = window_.planPage().view();
  press("toolLine");
  drag(&plan, plan.toScreen({0, 0, 0}), plan.toScreen({1, 0, 0}));
  press("nextSegment");
  drag(&plan, plan.toScreen({1, 0, 0}), plan.toScreen({1, 1, 0}));
  ASSERT_EQ(show().fixtures.size(), 1u);
  ASSERT_EQ(show().fixtures[0]->segments.size(), 2u);
  EXPECT_EQ(cellsOf(show(), mapPixels(show()), *show().zones[0]).count(), 120)
      << "the zone of the whole has the new segment";
  press("separateSegments");
  EXPECT_EQ(show().fixtures.size(), 2u);
  FixtureIds both;
  for (const auto& f : show().fixtures) both.push_back(f->id);
  selection_.select(both);
  press("joinFixtures");
  EXPECT_EQ(show().fixtures.size(), 1u);
}

TEST_F(WindowTest, PointsAreNumberedByAStroke) {
  document_.apply(QStringLiteral("points"), [](Show& s) {
    addFixture(s, PointsShape{{{0, 0, 0}, {1, 0, 0}, {0.5, 0, 0}}}, {});
  });
  PlanView& plan = window_.planPage().view();
  plan.frameAll();
  selection_.select(FixtureIds{show().fixtures[0]->id});
  press("numberByStroke");
  drag(&plan, plan.toScreen({1, 0, 0}), plan.toScreen({0, 0, 0}));
  EXPECT_EQ(positions(*show().fixtures[0]), (std::vector<Vec3>{{1, 0, 0}, {0.5, 0, 0}, {0, 0, 0}}));
}

TEST_F(WindowTest, EverySixteenBitStripTakesTwoChannelsAColour) {
  document_.apply(QStringLiteral("line"), [](Show& s) { addFixture(s, LineShape{10, 0.1}, {}); });
  selection_.select(FixtureIds{show().fixtures[0]->id});
  press("editStrip");
  choose("stripBits", QStringLiteral("16 bit"));
  setNumber("stripCut", 3);
  EXPECT_EQ(show().stripTypes[0]->bytesPerPixel(), 6);
  selection_.select(FixtureIds{show().fixtures[0]->id});
  setNumber("pixels", 14);
  EXPECT_EQ(pixelCount(*show().fixtures[0]), 15) << "cut where it can be";
}

}  // namespace
}  // namespace chispa::desk
