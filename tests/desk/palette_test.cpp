// SPDX-License-Identifier: GPL-3.0-or-later
// The palette editor: colours dragged along and around, by mouse and by keys.
#include "carousel/carousel.h"
#include "window.h"

#include "core/colour/oklch.h"
#include "desk/score/palette/huewheel.h"
#include "desk/score/palette/palettebar.h"

namespace chispa::desk {
namespace {

class PaletteTest : public WindowTest {
 protected:
  PaletteTest() {
    window_.resize(1280, 800);
    document_.apply(QStringLiteral("carousel"), [](Show& s) { s = demo::carousel(); });
    document_.seal();
    window_.showWorkspace(Workspace::Score);
    id_ = findNamed(show().palettes, "Lagoon")->id;
    selection_.select(id_);
    QCoreApplication::processEvents();
  }
  const Palette& palette() const { return *chispa::find(show().palettes, id_); }
  PaletteBar& bar() { return *dynamic_cast<PaletteBar*>(the<QWidget>("paletteBar")); }
  HueWheel& wheel() { return *dynamic_cast<HueWheel*>(the<QWidget>("hueWheel")); }

  PaletteId id_;
};

TEST_F(PaletteTest, AColourIsDraggedAlongInOneStep) {
  const Palette before = palette();
  const QPointF from = bar().handleOf(1);
  drag(&bar(), from, from + QPointF(30, 0));
  EXPECT_GT(palette().stops[1].at, before.stops[1].at + 0.05);
  EXPECT_EQ(palette().stops[1].colour, before.stops[1].colour);
  trigger("undo");
  EXPECT_EQ(palette(), before);
}

TEST_F(PaletteTest, AColourIsDraggedPastItsNeighbourAndStaysTheOneAtHand) {
  const Srgb8 second = palette().stops[1].colour;
  drag(&bar(), bar().handleOf(1), bar().handleOf(2) + QPointF(20, 0));
  EXPECT_EQ(palette().stops[2].colour, second);
  EXPECT_EQ(the<QLineEdit>("stopColour")->text(), QString::fromStdString(hexText(second)));
}

TEST_F(PaletteTest, ADoubleClickAddsAndDeleteTakesAway) {
  const std::size_t count = palette().stops.size();
  QTest::mouseDClick(&bar(), Qt::LeftButton, {}, QPoint(bar().width() / 2, 10));
  EXPECT_EQ(palette().stops.size(), count + 1);
  QTest::keyClick(&bar(), Qt::Key_Delete);
  EXPECT_EQ(palette().stops.size(), count);
  for (std::size_t i = 0; i < count + 2; ++i) QTest::keyClick(&bar(), Qt::Key_Backspace);
  EXPECT_EQ(palette().stops.size(), 1u) << "one always stays";
}

TEST_F(PaletteTest, KeysMoveAndChooseColours) {
  QTest::keyClick(&bar(), Qt::Key_PageDown);
  const double before = palette().stops[1].at;
  QTest::keyClick(&bar(), Qt::Key_Right);
  EXPECT_NEAR(palette().stops[1].at, before + 0.01, 1e-9);
  QTest::keyClick(&bar(), Qt::Key_Left, Qt::ShiftModifier);
  EXPECT_NEAR(palette().stops[1].at, before - 0.09, 1e-9);
  QTest::keyClick(&bar(), Qt::Key_Insert);
  EXPECT_EQ(palette().stops.size(), 5u);
}

TEST_F(PaletteTest, AColourIsTurnedOnTheWheel) {
  const OkLch before = toOkLch(palette().stops[2].colour);
  const QPointF from = wheel().spotOf(before);
  // A quarter turn about the middle.
  const QPointF centre = QRectF(wheel().rect()).center();
  const QPointF to = centre + QPointF((from - centre).y(), -(from - centre).x());
  drag(&wheel(), from, to);
  const OkLch after = toOkLch(palette().stops[2].colour);
  EXPECT_NEAR(std::remainder(after.hue_deg - before.hue_deg - 90, 360), 0, 6);
  EXPECT_NEAR(after.lightness, before.lightness, 0.03) << "only the hue turns";
  trigger("undo");
  EXPECT_NEAR(toOkLch(palette().stops[2].colour).hue_deg, before.hue_deg, 0.01)
      << "the whole drag is one step";
}

TEST_F(PaletteTest, KeysTurnAndStrengthenTheColourAtHand) {
  bar().setFocus();
  QTest::keyClick(&bar(), Qt::Key_PageDown);
  QTest::keyClick(&bar(), Qt::Key_PageDown);
  const OkLch before = toOkLch(palette().stops[2].colour);
  QTest::keyClick(&wheel(), Qt::Key_Left);
  EXPECT_NEAR(toOkLch(palette().stops[2].colour).hue_deg, before.hue_deg + 5, 2);
  QTest::keyClick(&wheel(), Qt::Key_Down);
  EXPECT_LT(toOkLch(palette().stops[2].colour).chroma, before.chroma);
}

TEST_F(PaletteTest, NumbersSayTheSameColourInOkLch) {
  setNumber("stopLightness", 60);
  EXPECT_NEAR(toOkLch(palette().stops[0].colour).lightness, 0.6, 0.01);
  setNumber("stopHue", 40);
  EXPECT_NEAR(toOkLch(palette().stops[0].colour).hue_deg, 40, 3);
}

TEST_F(PaletteTest, ItIsClosedToALoop) {
  press("closePalette");
  EXPECT_EQ(palette().stops.front().colour, palette().stops.back().colour);
  EXPECT_EQ(palette().stops.size(), 5u);
}

TEST_F(PaletteTest, EachStripTypeHasARow) {
  const auto* looks = the<QWidget>("stripLooks");
  const int before = looks->sizeHint().height();
  document_.apply(QStringLiteral("a reel"), [](Show& s) {
    StripType strip;
    strip.id = s.newId<StripTypeId>();
    strip.name = "Warm white";
    strip.order = "W";
    put(s.stripTypes, strip);
  });
  QCoreApplication::processEvents();
  EXPECT_GT(looks->sizeHint().height(), before);
  // The row of white chips has no colour in it.
  ASSERT_TRUE(eventually([looks] { return looks->height() == looks->sizeHint().height(); }))
      << looks->height() << " of " << looks->sizeHint().height();
  const QImage seen = the<QWidget>("stripLooks")->grab().toImage();
  const QColor last = seen.pixelColor(seen.width() - 4, seen.height() - 13);
  EXPECT_GT(last.red(), 60) << "the light end has white in it";
  EXPECT_EQ(last.red(), last.blue());
}

}  // namespace
}  // namespace chispa::desk
