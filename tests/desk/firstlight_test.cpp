// SPDX-License-Identifier: GPL-3.0-or-later
#include "window.h"

#include "core/files/showjson.h"
#include "desk/parts/language.h"
#include "node/node.h"

namespace chispa::desk {
namespace {

/// How a maker has the window.
struct Manner {
  const char* language;
  int letters_px;
};
std::ostream& operator<<(std::ostream& out, const Manner& manner) {
  return out << manner.language << manner.letters_px;
}

/// Holds while the window of a test is made and used.
class InManner {
 protected:
  InManner() {
    const Manner& manner = testing::WithParamInterface<Manner>::GetParam();
    if (words_.take(QLatin1String(manner.language))) QCoreApplication::installTranslator(&words_);
    QFont larger = before_;
    larger.setPixelSize(manner.letters_px);
    QApplication::setFont(larger);
  }
  ~InManner() {
    QApplication::setFont(before_);
    QCoreApplication::removeTranslator(&words_);
  }

 private:
  const QFont before_ = QApplication::font();
  WordCatalogue words_;
};

/// Only what a hand can do: keys and the mouse, on what is in sight.
class FirstLight : private InManner, public WindowTest, public testing::WithParamInterface<Manner> {
 protected:
  void typeNumber(const char* field, int value) {
    auto* box = the<QDoubleSpinBox>(field);
    ASSERT_TRUE(box->isVisible()) << field;
    QTest::mouseDClick(box->findChild<QLineEdit*>(), Qt::LeftButton);
    QTest::keyClick(box, Qt::Key_A, Qt::ControlModifier);
    QTest::keyClicks(box, QString::number(value));
    QTest::keyClick(box, Qt::Key_Return);
    QCoreApplication::processEvents();
  }
  /// Types the beginning of a choice, as one does in a list.
  void typeChoice(const char* field, const QString& words) {
    auto* box = the<QComboBox>(field);
    ASSERT_TRUE(box->isVisible()) << field;
    box->setFocus(Qt::TabFocusReason);
    QTest::keyClicks(box, words);
    QTest::keyClick(box, Qt::Key_Return);
    QCoreApplication::processEvents();
    EXPECT_TRUE(box->currentText().startsWith(words)) << box->currentText().toStdString();
  }
  void key(Qt::Key one, Qt::KeyboardModifiers with = {}) {
    QTest::keyClick(&window_, one, with);
    QCoreApplication::processEvents();
  }
};

INSTANTIATE_TEST_SUITE_P(Manners, FirstLight,
                         testing::Values(Manner{"en", 13}, Manner{"es", 13}, Manner{"en", 18},
                                         Manner{"es", 18}),
                         testing::PrintToStringParamName());

/// A maker's first evening, through the real window: from an empty show to a node that shows the colours of a
/// clip on a beat; then all of it undone, done again, saved and opened anew.
TEST_P(FirstLight, FromNothingToLedsThatShowAClipAndBack) {
  const Show empty = show();

  // A matrix, drawn with the mouse; its size set in the inspector.
  PlanView& plan = window_.planPage().view();
  window_.showWorkspace(Workspace::Plan);
  press("toolMatrix");
  drag(&plan, plan.toScreen({-0.2, 0.2, 0}), plan.toScreen({0.6, 0.8, 0}));
  ASSERT_EQ(show().fixtures.size(), 1u);
  typeNumber("columns", 12);
  typeNumber("rows", 8);
  type("fixtureName", QStringLiteral("Sign"));
  EXPECT_EQ(show().fixtures[0]->name, "Sign");
  EXPECT_EQ(pixelCount(show()), 96);

  // A controller, set to the node's address, and the matrix dragged from the tray onto its second port.
  const std::string address = test::loopbackAddress(13);
  node::Node node({"Node", 8, address, {}});
  std::string why;
  ASSERT_TRUE(node.start(why)) << why;
  window_.showWorkspace(Workspace::Wire);
  press("addController");
  type("host", QString::fromStdString(address));
  LoomView& loom = window_.wirePage().loom();
  ASSERT_EQ(loom.layoutNow().chips().size(), 1u);
  const auto* port2 = loom.layoutNow().chainOf(show().controllers[0]->id, 1);
  drag(&loom, loom.layoutNow().chips()[0].box.center(), {port2->x, port2->top + 10});
  ASSERT_EQ(show().controllers[0]->ports[1].run.size(), 1u);
  EXPECT_TRUE(loom.layoutNow().chips().empty());

  // A score from the waltz: its bars and beats are found.
  window_.showWorkspace(Workspace::Score);
  window_.scorePage().newScore(kWaltz);
  ASSERT_TRUE(eventually([this] { return stage_.score() && stage_.score()->length.count() > 0; }));
  const Score* score = stage_.score();
  ASSERT_TRUE(laneOf(*score, LaneKind::Beats));
  EXPECT_GT(laneOf(*score, LaneKind::Bars)->marks.size(), 50u);

  // A clip on a beat, by a double click on the stave.
  TimelineView& timeline = window_.scorePage().timeline();
  const ZoneId zone = show().zones[0]->id;
  const Micros beat = laneOf(*score, LaneKind::Beats)->marks[30].at;
  const QPointF place(timeline.xOf(beat) + 1, timeline.staveBox(zone).center().y());
  QTest::mouseDClick(timeline.viewport(), Qt::LeftButton, {}, place.toPoint());
  QCoreApplication::processEvents();
  ASSERT_EQ(stage_.score()->clips.size(), 1u);
  EXPECT_EQ(stage_.score()->clips[0]->start, beat) << "it snaps to the beat";

  // Another palette for it, made and coloured by hand.
  const ClipId clip = stage_.score()->clips[0]->id;
  press("newPalette");
  for (int i = 0; i < 2; ++i) {
    type("stopColour", QStringLiteral("#00ff00"));
    QTest::keyClick(the<QWidget>("paletteBar"), Qt::Key_PageDown);
  }
  QTest::mouseClick(timeline.viewport(), Qt::LeftButton, {}, timeline.clipBox(clip).center().toPoint());
  ASSERT_EQ(selection_.clips(), ClipIds{clip});
  typeChoice("palette", QString::fromStdString(show().palettes.back()->name));
  settle();

  // Light on and play from the clip: the node shows green.
  node.setSettings({{2, "e131", {{96, "GRB", 0, show().controllers[0]->firstUniverse, 1}}}});
  stage_.seek(beat);
  QTest::keyClick(&window_, Qt::Key_F9);
  EXPECT_TRUE(stage_.isLit());
  QTest::keyClick(&timeline, Qt::Key_Space);
  EXPECT_TRUE(stage_.isPlaying());
  EXPECT_TRUE(eventually([&] { return node.state()["ports"][0]["shows"][95] == "#00ff00"; }));
  EXPECT_EQ(node.state()["ports"][0]["shows"][0], "#00ff00");
  QTest::keyClick(&timeline, Qt::Key_Space);
  QTest::keyClick(&window_, Qt::Key_F9);
  EXPECT_TRUE(eventually([&] { return node.state()["ports"][0]["shows"][0] == "#000000"; }))
      << "switching off leaves black";

  // Undo everything, do it again, save, open: the same show.
  const Show made = show();
  while (document_.canUndo()) key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(show(), empty);
  while (document_.canRedo()) key(Qt::Key_Z, Qt::ControlModifier | Qt::ShiftModifier);
  EXPECT_EQ(showText(show()), showText(made));
  const auto file = folder_.path() / "evening.chispa";
  ASSERT_TRUE(document_.saveAs(file));
  document_.start();
  ASSERT_TRUE(window_.openFile(QString::fromStdString(file.string())));
  EXPECT_EQ(showText(show()), showText(made));
  EXPECT_TRUE(told_.isEmpty()) << told_.join(QLatin1Char('\n')).toStdString();
}

}  // namespace
}  // namespace chispa::desk
