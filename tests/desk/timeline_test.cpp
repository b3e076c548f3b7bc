// SPDX-License-Identifier: GPL-3.0-or-later
// The timeline under the hand: marks that catch onsets, files that are dropped, layers with room, the
// spectrum, parts of the screen.
#include "carousel/carousel.h"
#include "scorewindow.h"
#include <QDragEnterEvent>
#include <QMenu>
#include <QMimeData>
#include <QScrollBar>

#include "core/edit/clipedits.h"
#include "core/edit/markedits.h"
#include "core/edit/scoreedits.h"
#include "core/effect/screencapture.h"
#include "desk/parts/screenpicker.h"
#include "desk/score/composing.h"

namespace chispa::desk {
namespace {

class TimelineTest : public ScoreWindowTest {
 protected:
  void drop(const QString& file, QPointF at) {
    QMimeData data;
    data.setUrls({QUrl::fromLocalFile(file)});
    QDragEnterEvent enter(at.toPoint(), Qt::CopyAction, &data, Qt::LeftButton, {});
    QCoreApplication::sendEvent(timeline().viewport(), &enter);
    EXPECT_TRUE(enter.isAccepted());
    QDropEvent event(at, Qt::CopyAction, &data, Qt::LeftButton, {});
    QCoreApplication::sendEvent(timeline().viewport(), &event);
    QCoreApplication::processEvents();
  }
  /// A silent score with clips on the rim, one above the other.
  void layers(int count) {
    ScoreId id;
    document_.apply(QStringLiteral("plain"), [&](Show& s) {
      id = addScore(s, "Plain", {}, Micros(60'000'000));
      for (int i = 0; i < count; ++i) {
        const ClipId clip = addClip(s, id, findNamed(s.zones, "Canopy rim")->id, "comets",
                                    s.palettes.front()->id, Micros(5'000'000), Micros(20'000'000));
        changeClip(s, id, clip, [i](Clip& c) { c.layer = i; });
      }
    });
    stage_.openScore(id);
    settle();
  }
};

TEST_F(TimelineTest, ADraggedMarkComesToStandOnAnOnset) {
  const auto& onsets = stage_.audio()->onsets;
  ASSERT_GT(onsets.size(), 20u);
  const Micros onset = onsets[onsets.size() / 2];
  stage_.seek(onset - Micros(2'000'000));
  trigger("placeMark");
  timeline().zoomBy(8);
  timeline().reveal(onset);
  QCoreApplication::processEvents();
  const auto mark = [this] { return laneOf(score(), LaneKind::Free)->marks.front().at; };
  double lane = -1;
  // The lane of marks stands below the others; it is looked for as the eye does.
  for (int y = 0; y < timeline().viewport()->height() && lane < 0; ++y) {
    QTest::mouseClick(timeline().viewport(), Qt::LeftButton, {},
                      QPoint(static_cast<int>(timeline().xOf(mark())), y));
    QTest::mousePress(timeline().viewport(), Qt::LeftButton, {},
                      QPoint(static_cast<int>(timeline().xOf(mark())), y));
    const Micros before = mark();
    QTest::mouseMove(timeline().viewport(), QPoint(static_cast<int>(timeline().xOf(mark())) + 60, y));
    QTest::mouseRelease(timeline().viewport(), Qt::LeftButton, {},
                        QPoint(static_cast<int>(timeline().xOf(mark())) + 60, y));
    if (mark() != before) lane = y;
  }
  ASSERT_GE(lane, 0) << "the mark was never caught";
  drag(timeline().viewport(), {timeline().xOf(mark()), lane}, {timeline().xOf(onset) + 4, lane});
  EXPECT_EQ(mark(), onset);
}

TEST_F(TimelineTest, ADroppedPictureIsAClipInOneStep) {
  QImage two(2, 1, QImage::Format_RGB32);
  two.fill(Qt::red);
  const QString file = QString::fromStdString((folder_.path() / "two.png").string());
  ASSERT_TRUE(two.save(file));
  layers(1);
  const Show before = show();
  const QRectF stave = timeline().staveBox(findNamed(show().zones, "Canopy rim")->id);
  drop(file, {timeline().xOf(Micros(40'000'000)), stave.center().y()});
  ASSERT_EQ(score().clips.size(), 2u);
  const Clip& made = *score().clips.back();
  EXPECT_EQ(made.effect, "picture");
  EXPECT_TRUE(eventually([&] { return stage_.media().has(std::get<std::string>(made.params.at("file"))); }))
      << "and it is loaded";
  trigger("undo");
  EXPECT_EQ(show(), before);
}

TEST_F(TimelineTest, ADroppedPieceOfMusicIsANewScore) {
  const std::size_t before = show().scores.size();
  drop(QStringLiteral(CHISPA_SOURCE_DIR "/demo/slow-round.ogg"), {600, 300});
  EXPECT_EQ(show().scores.size(), before + 1);
  EXPECT_TRUE(eventually([this] { return score().length.count() > 0; }));
  EXPECT_EQ(score().name, "slow-round");
}

TEST_F(TimelineTest, OnlyTheLayerWithCurvesGrows) {
  layers(3);
  const auto box = [this](std::size_t i) { return timeline().clipBox(score().clips[i]->id); };
  const double before = box(0).height();
  selection_.select(ClipIds{score().clips[1]->id});
  QCoreApplication::processEvents();
  choose("motion-tail", QStringLiteral("rises over"));
  EXPECT_NEAR(box(0).height(), before, 1);
  EXPECT_NEAR(box(2).height(), before, 1);
  EXPECT_GT(box(1).height(), 2 * before);
  // The highest layer stands on top, and none covers another.
  EXPECT_LT(box(2).bottom(), box(1).top());
  EXPECT_LT(box(1).bottom(), box(0).top());
  EXPECT_LE(box(0).bottom(), timeline().staveBox(score().clips[0]->zone).bottom());
}

TEST_F(TimelineTest, TheSpectrumTakesTheWaveformsPlace) {
  const ZoneId rim = findNamed(show().zones, "Canopy rim")->id;
  const double before = timeline().staveBox(rim).top();
  const QImage wave = timeline().grab().toImage();
  trigger("showSpectrum");
  QCoreApplication::processEvents();
  EXPECT_GT(timeline().staveBox(rim).top(), before) << "it has more room";
  EXPECT_NE(timeline().grab().toImage(), wave);
  trigger("showSpectrum");
  QCoreApplication::processEvents();
  EXPECT_EQ(timeline().staveBox(rim).top(), before);
}

TEST_F(TimelineTest, APartOfTheScreenIsDrawnAndItsLightIsThere) {
  layers(1);
  selection_.select(ClipIds{score().clips[0]->id});
  QCoreApplication::processEvents();
  choose("effect", QStringLiteral("Spyhole"));
  QCoreApplication::processEvents();
  press("spyholePick");
  QWidget* picker = nullptr;
  for (QWidget* top : QApplication::topLevelWidgets())
    if (top->objectName() == QStringLiteral("screenPicker")) picker = top;
  ASSERT_TRUE(picker);
  drag(picker, {20, 30}, {220, 130});
  QCoreApplication::processEvents();
  const ScreenPart part = screenPartOf(score().clips[0]->params);
  EXPECT_EQ(part.x, 20);
  EXPECT_EQ(part.y, 30);
  EXPECT_NEAR(part.width, 200, 2);
  EXPECT_NEAR(part.height, 100, 2);
  settle();
  ASSERT_TRUE(stage_.media().findLive(part)) << "it is watched";
  trigger("undo");
  EXPECT_EQ(screenPartOf(score().clips[0]->params).x, 0);
}

TEST_F(TimelineTest, EscapeLeavesThePartOfTheScreenAsItIs) {
  bool isPicked = false;
  auto* picker = new ScreenPicker(0, {}, [&](const ScreenPart&, const QImage&) { isPicked = true; });
  picker->show();
  QTest::mouseClick(picker, Qt::LeftButton, {}, QPoint(50, 50));
  EXPECT_FALSE(isPicked) << "a click alone chooses nothing";
  QTest::keyClick(picker, Qt::Key_Escape);
  EXPECT_FALSE(picker->isVisible());
  EXPECT_FALSE(isPicked);
}

TEST_F(TimelineTest, AStaveIsDraggedToAnotherPlace) {
  layers(1);
  const std::vector<ZoneId> before = score().staves;
  const auto middle = [this](ZoneId zone) { return QPointF(40, timeline().staveBox(zone).center().y()); };
  ASSERT_TRUE(score().folders.empty());
  drag(timeline().viewport(), middle(before[2]), middle(before[0]) - QPointF(0, 8));
  EXPECT_EQ(score().staves[0], before[2]);
  EXPECT_EQ(score().staves[1], before[0]);
  trigger("undo");
  EXPECT_EQ(score().staves, before);
  // A click alone moves nothing.
  QTest::mouseClick(timeline().viewport(), Qt::LeftButton, {}, middle(before[1]).toPoint());
  EXPECT_EQ(score().staves, before);
  EXPECT_EQ(timeline().chosenZone(), before[1]);
  trigger("staveUp");
  EXPECT_EQ(score().staves[0], before[1]) << "the same by the keyboard";
}

TEST_F(TimelineTest, StavesAreTakenAwayAndAddedAgain) {
  layers(1);
  const ZoneId rim = score().clips.front()->zone;
  QTest::mouseClick(timeline().viewport(), Qt::LeftButton, {},
                    QPointF(40, timeline().staveBox(score().staves[1]).center().y()).toPoint());
  const ZoneId gone = timeline().chosenZone();
  ASSERT_NE(gone, rim);
  trigger("removeStave");
  EXPECT_EQ(window_.scorePage().composing().zonesWithoutStave(), std::vector<ZoneId>{gone});
  auto* menu = the<QMenu>("addStaveMenu");
  emit menu->aboutToShow();
  ASSERT_EQ(menu->actions().size(), 1);
  menu->actions().front()->trigger();
  EXPECT_TRUE(window_.scorePage().composing().zonesWithoutStave().empty());
}

TEST_F(TimelineTest, AFolderIsMadeNamedAndLeft) {
  layers(1);
  selection_.select(ClipIds{score().clips.front()->id});
  trigger("newFolder");
  ASSERT_EQ(score().folders.size(), 1u);
  auto* field = the<QLineEdit>("folderName");
  QTest::keyClicks(field, QStringLiteral("Roof"));
  QTest::keyClick(field, Qt::Key_Return);
  QCoreApplication::processEvents();
  EXPECT_EQ(score().folders[0].name, "Roof");
  EXPECT_EQ(score().folders[0].zones, std::vector<ZoneId>{score().clips.front()->zone});
  auto* menu = the<QMenu>("joinFolderMenu");
  emit menu->aboutToShow();
  EXPECT_EQ(menu->actions().front()->text(), QStringLiteral("Roof"));
  trigger("undo");
  trigger("undo");
  EXPECT_TRUE(score().folders.empty());
}

TEST_F(TimelineTest, AMarkIsNamedMovedAndTakenAway) {
  layers(1);
  stage_.seek(Micros(7'000'000));
  trigger("placeMark");
  const auto marks = [this] { return laneOf(score(), LaneKind::Free)->marks; };
  ASSERT_EQ(marks().size(), 1u);
  QCoreApplication::processEvents();
  type("markName", QStringLiteral("lanterns up"));
  EXPECT_EQ(marks()[0].text, "lanterns up");
  setNumber("markAt", 8.5);
  EXPECT_EQ(marks()[0].at, Micros(8'500'000));
  QTest::keyClick(&timeline(), Qt::Key_Right);
  EXPECT_EQ(marks()[0].at, Micros(8'510'000)) << "the arrows nudge it";
  trigger("delete");
  EXPECT_TRUE(marks().empty());
  trigger("undo");
  EXPECT_EQ(marks()[0].text, "lanterns up");
}

/// Several marks are chosen by mouse and keys, and moved, spread, stretched, put on beats and deleted at
/// once.
TEST_F(TimelineTest, MarksAreChosenManyAtOnce) {
  layers(1);
  document_.apply(QStringLiteral("marks"), [&](Show& show) {
    for (const int at : {10, 12, 13, 20})
      addMark(show, score().id, LaneKind::Free, "Marks", std::chrono::seconds(at), "m");
  });
  settle();
  timeline().zoomToAll();
  const auto marks = [&]() -> const std::vector<Mark>& { return laneOf(score(), LaneKind::Free)->marks; };
  const auto times = [&] {
    std::vector<double> all;
    for (const Mark& mark : marks()) all.push_back(std::round(seconds(mark.at) * 100) / 100);
    return all;
  };
  // The only lane lies right above the staves.
  const int y = static_cast<int>(timeline().staveBox(score().staves.front()).top());
  int lane = 0;
  for (int above = 1; above < 60 && lane == 0; ++above) {
    QTest::mouseClick(timeline().viewport(), Qt::LeftButton, {},
                      QPoint(static_cast<int>(timeline().xOf(marks()[0].at)), y - above));
    if (selection_.has(marks()[0].id)) lane = y - above;
  }
  ASSERT_GT(lane, 0) << "the lane of marks is found by clicking";
  const auto click = [&](std::size_t mark, Qt::KeyboardModifiers held) {
    QTest::mouseClick(timeline().viewport(), Qt::LeftButton, held,
                      QPoint(static_cast<int>(timeline().xOf(marks()[mark].at)), lane));
    QCoreApplication::processEvents();
  };
  click(0, {});
  click(2, Qt::ControlModifier);
  EXPECT_EQ(selection_.marks().size(), 2u);
  click(2, Qt::ControlModifier);
  EXPECT_EQ(selection_.marks().size(), 1u);
  click(3, Qt::ShiftModifier);
  ASSERT_EQ(selection_.marks().size(), 4u);
  press("marksSpread");
  EXPECT_EQ(times(), (std::vector{10.0, 13.33, 16.67, 20.0}));
  setNumber("marksStretch", 50);
  EXPECT_EQ(times(), (std::vector{10.0, 11.67, 13.33, 15.0}));
  QTest::keyClick(&timeline(), Qt::Key_Right);
  EXPECT_EQ(times()[3], 15.01) << "the arrows nudge all of them";
  trigger("undo");
  trigger("undo");
  EXPECT_EQ(times(), (std::vector{10.0, 13.33, 16.67, 20.0}));
  // A frame drawn with Shift over the lane.
  selection_.clear();
  const auto x = [&](double at) { return static_cast<int>(timeline().xOf(micros(at))); };
  QTest::mousePress(timeline().viewport(), Qt::LeftButton, Qt::ShiftModifier, QPoint(x(12), lane));
  for (int i = 1; i <= 4; ++i) QTest::mouseMove(timeline().viewport(), QPoint(x(12 + i * 1.5), lane));
  QTest::mouseRelease(timeline().viewport(), Qt::LeftButton, Qt::ShiftModifier, QPoint(x(18), lane));
  QCoreApplication::processEvents();
  ASSERT_EQ(selection_.marks().size(), 2u);
  press("marksDelete");
  EXPECT_EQ(times(), (std::vector{10.0, 20.0}));
}

TEST_F(TimelineTest, SectionsAreBegunAndSteppedThrough) {
  layers(1);
  for (const int at : {10, 20}) {
    stage_.seek(std::chrono::seconds(at));
    trigger("beginSection");
  }
  ASSERT_EQ(laneOf(score(), LaneKind::Sections)->marks.size(), 2u);
  EXPECT_EQ(laneOf(score(), LaneKind::Sections)->marks[1].text, "Section 2");
  trigger("lastMark");
  EXPECT_EQ(stage_.position(), Micros(10'000'000));
  trigger("nextMark");
  EXPECT_EQ(stage_.position(), Micros(20'000'000));
  EXPECT_TRUE(std::holds_alternative<MarkIds>(selection_.now()));
  trigger("nextMark");
  EXPECT_EQ(told_.size(), 1) << "there is none behind";
}

TEST_F(TimelineTest, LanesAreRenamedAndTakenAwayInTheScoresForm) {
  selection_.select(score().id);
  QCoreApplication::processEvents();
  const std::size_t before = score().lanes.size();
  type("laneName-0", QStringLiteral("Down-beats"));
  EXPECT_EQ(score().lanes[0].name, "Down-beats");
  const LaneId second = score().lanes[1].id;
  press("removeLane-0");
  QCoreApplication::processEvents();
  ASSERT_EQ(score().lanes.size(), before - 1);
  EXPECT_EQ(score().lanes[0].id, second);
  trigger("undo");
  EXPECT_EQ(score().lanes.size(), before);
}

}  // namespace
}  // namespace chispa::desk
