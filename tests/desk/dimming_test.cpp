// SPDX-License-Identifier: GPL-3.0-or-later
// Dimming curves, colours of chips and the library of strips, with real mouse and keys.
#include "window.h"
#include <QTreeWidget>

#include "core/edit/planedits.h"
#include "desk/parts/curvefield.h"

namespace chispa::desk {
namespace {

class DimmingTest : public WindowTest {
 protected:
  DimmingTest() {
    EXPECT_TRUE(window_.openFile(QStringLiteral(CHISPA_SOURCE_DIR "/demo/carousel.chispa")));
    window_.resize(1280, 900);
    settle();
  }
  const Fixture& lamp() const { return *show().fixtures.front(); }
  const StripType& strip() const { return stripTypeOf(show(), lamp()); }

  /// Drags the middle point of a curve's nine to a quarter of the light.
  void dragTheMiddle(const char* name) {
    auto* field = the<CurveField>(name);
    const CurvePoint middle = field->curve()[4];
    drag(field, field->spotOf(middle), field->spotOf({0.5, 0.25}));
  }
};

TEST_F(DimmingTest, AFixtureHasACurveOfItsOwn) {
  const Show before = show();
  selection_.select(FixtureIds{lamp().id});
  settle();
  dragTheMiddle("fixtureCurve");
  ASSERT_TRUE(lamp().response);
  ASSERT_EQ(lamp().response->points.size(), 9u);
  EXPECT_NEAR(lamp().response->lightOf(0.5), 0.25, 0.02);
  EXPECT_EQ(the<QLineEdit>("fixtureResponse")->text(), QStringLiteral("drawn"));
  for (std::size_t i = 1; i < 9; ++i)
    EXPECT_GE(lamp().response->points[i].value, lamp().response->points[i - 1].value) << "it never falls";
  setNumber("fixtureLeast", 4);
  EXPECT_NEAR(lamp().response->least, 4 / 255.0, 1e-9);
  type("fixtureResponse", QStringLiteral("2.2"));
  EXPECT_TRUE(lamp().response->points.empty());
  EXPECT_EQ(lamp().response->exponent, 2.2);
  auto* power = the<QLineEdit>("fixtureResponse");
  power->selectAll();
  QTest::keyClick(power, Qt::Key_Delete);
  QTest::keyClick(power, Qt::Key_Return);
  EXPECT_FALSE(lamp().response);
  while (document_.canUndo()) document_.undo();
  EXPECT_EQ(show(), before);
}

TEST_F(DimmingTest, ADraggedPointIsOneStepOfUndo) {
  selection_.select(FixtureIds{lamp().id});
  settle();
  dragTheMiddle("fixtureCurve");
  document_.undo();
  EXPECT_FALSE(lamp().response);
  EXPECT_FALSE(document_.canUndo());
}

TEST_F(DimmingTest, PortsAndStripTypesAreDrawnToo) {
  const Controller& box = *show().controllers.front();
  selection_.select(PortChoice{box.id, 0});
  settle();
  dragTheMiddle("portCurve");
  ASSERT_TRUE(show().controllers.front()->ports[0].settings.response);
  EXPECT_NEAR(show().controllers.front()->ports[0].settings.response->lightOf(0.5), 0.25, 0.02);
  selection_.select(strip().id);
  settle();
  // From the keyboard: a point is chosen and lowered.
  auto* field = the<CurveField>("stripCurve");
  field->setFocus();
  for (int i = 0; i < 5; ++i) QTest::keyClick(field, Qt::Key_PageDown);
  for (int i = 0; i < 3; ++i) QTest::keyClick(field, Qt::Key_Down);
  EXPECT_FALSE(strip().response.points.empty());
  EXPECT_LT(strip().response.lightOf(0.5), 0.5);
  setNumber("stripResponse", 1.8);
  EXPECT_EQ(strip().response, Response{1.8});
}

TEST_F(DimmingTest, ChipsAreDescribedByTheirWavelengths) {
  selection_.select(strip().id);
  settle();
  QTest::keyClick(the<QCheckBox>("stripChips"), Qt::Key_Space);
  ASSERT_TRUE(strip().chips);
  type("stripRed", QStringLiteral("630 nm"));
  EXPECT_NEAR(*dominantWavelength(strip().chips->red), 630, 1);
  type("stripGreen", QStringLiteral("0.2 0.7"));
  EXPECT_EQ(strip().chips->green, (Chromaticity{0.2, 0.7}));
  const ChipColours good = *strip().chips;
  type("stripBlue", QStringLiteral("bluish"));
  EXPECT_EQ(*strip().chips, good) << "what is no colour changes nothing";
  type("stripBlue", QStringLiteral("0.5 0.45"));
  EXPECT_EQ(*strip().chips, good) << "chips without white between them change nothing";
  type("stripWhite", QStringLiteral("2700 K"));
  EXPECT_NEAR(strip().chips->white.x, 0.459, 0.003);
  setNumber("stripWhiteLight", 140);
  EXPECT_DOUBLE_EQ(strip().chips->whiteLight, 1.4);
  QTest::keyClick(the<QCheckBox>("stripChips"), Qt::Key_Space);
  EXPECT_FALSE(strip().chips);
  document_.undo();
  EXPECT_TRUE(strip().chips);
}

TEST_F(DimmingTest, APieceThatNoReelHasIsTold) {
  selection_.select(strip().id);
  settle();
  choose("stripBuild", QStringLiteral("on a reel"));
  EXPECT_EQ(strip().build, StripBuild::Reel);
  selection_.select(FixtureIds{lamp().id});
  settle();
  const auto told = [this] {
    for (const QLabel* label : window_.findChildren<QLabel*>())
      if (label->isVisible() && label->text().contains(QStringLiteral("wire between"))) return true;
    return false;
  };
  EXPECT_TRUE(told());
  document_.undo();
  settle();
  EXPECT_FALSE(told());
}

TEST_F(DimmingTest, AKindOfStripIsSearchedAndTaken) {
  const Show before = show();
  selection_.clear();
  settle();
  press("stripLibrary");
  auto* dialog = the<QDialog>("stripKindsDialog");
  ASSERT_TRUE(dialog);
  QTest::keyClicks(dialog->findChild<QLineEdit*>(QStringLiteral("stripKindSearch")),
                   QStringLiteral("rgbw 24 16"));
  auto* list = dialog->findChild<QTreeWidget*>(QStringLiteral("stripKinds"));
  int shown = 0;
  for (int i = 0; i < list->topLevelItemCount(); ++i) shown += list->topLevelItem(i)->isHidden() ? 0 : 1;
  EXPECT_EQ(shown, 1);
  QTest::mouseClick(dialog->findChild<QPushButton*>(QStringLiteral("stripKindTake")), Qt::LeftButton);
  settle();
  const StripType& taken = *show().stripTypes.back();
  EXPECT_EQ(taken.channelBits, 16);
  EXPECT_TRUE(taken.chips);
  EXPECT_EQ(selection_.now(), Selected(taken.id));
  document_.undo();
  EXPECT_EQ(show(), before);
}

TEST_F(DimmingTest, ASearchThatFindsNothingSaysWhatToDo) {
  selection_.clear();
  settle();
  press("stripLibrary");
  auto* dialog = the<QDialog>("stripKindsDialog");
  QTest::keyClicks(dialog->findChild<QLineEdit*>(QStringLiteral("stripKindSearch")),
                   QStringLiteral("zeppelin"));
  EXPECT_FALSE(dialog->findChild<QPushButton*>(QStringLiteral("stripKindTake"))->isEnabled());
  EXPECT_TRUE(dialog->findChild<QLabel*>(QStringLiteral("stripKindAbout"))
                  ->text()
                  .contains(QStringLiteral("New type")));
}

}  // namespace
}  // namespace chispa::desk
