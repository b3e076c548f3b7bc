// SPDX-License-Identifier: GPL-3.0-or-later
#include "scorewindow.h"
#include <QCheckBox>
#include <QFileDialog>
#include <QListWidget>
#include <QSlider>
#include <QSpinBox>
#include <QTimer>
#include <QTreeWidget>

#include "core/edit/deletions.h"
#include "core/edit/markedits.h"
#include "core/edit/scoreedits.h"
#include "core/edit/wireedits.h"
#include "core/files/palettefile.h"
#include "core/zone/cells.h"
#include "desk/bench/targetlist.h"
#include "desk/score/drawingeditor.h"

// Controls that other tests do not touch, each with what is seen of it.

namespace chispa::desk {
namespace {

class Controls : public ScoreWindowTest {
 protected:
  /// The first clip, selected.
  const Clip& chosen() {
    const auto& clip = score().clips.front();
    if (!selection_.has(clip->id)) selection_.select(ClipIds{clip->id});
    QCoreApplication::processEvents();
    return *chispa::find(score().clips, clip->id);
  }
  const Zone& zone(const std::string& name) { return *findNamed(show().zones, name); }
  int cellsIn(const std::string& name) { return cellsOf(show(), mapPixels(show()), zone(name)).count(); }
};

TEST_F(Controls, APortHasABrightnessAResponseAndTurnsBack) {
  const Controller& box = *show().controllers.front();
  const auto settings = [&]() -> const WireSettings& {
    return show().controllers.front()->ports[0].settings;
  };
  selection_.select(PortChoice{box.id, 0});
  setNumber("portBrightness", 35);
  EXPECT_EQ(settings().brightness, 0.35);
  type("portResponse", QStringLiteral("2.4"));
  EXPECT_EQ(settings().response, Response{2.4});
  type("portResponse", QStringLiteral("rubbish"));
  EXPECT_EQ(settings().response, Response{2.4}) << "what is no number changes nothing";
  type("portZigzag", QStringLiteral("16"));
  EXPECT_EQ(settings().zigzag, 16);
  auto* zigzag = the<QLineEdit>("portZigzag");
  zigzag->setFocus();
  zigzag->selectAll();
  QTest::keyClick(zigzag, Qt::Key_Delete);
  QTest::keyClick(zigzag, Qt::Key_Return);
  EXPECT_FALSE(settings().zigzag) << "empty says nothing";
  setNumber("portBrightness", 100);
  EXPECT_FALSE(settings().brightness);
}

TEST_F(Controls, APortOfAScreenFillsADisplay) {
  const ControllerId id = show().controllers.front()->id;
  selection_.select(id);
  choose("protocol", QStringLiteral("A screen"));
  ASSERT_EQ(chispa::find(show().controllers, id)->protocol, Protocol::Screen);
  selection_.select(PortChoice{id, 0});
  setNumber("screenColumns", 24);
  the<QCheckBox>("screenFull")->click();
  const ScreenArea area = chispa::find(show().controllers, id)->ports[0].screen;
  EXPECT_EQ(area.columns, 24);
  EXPECT_TRUE(area.isFullScreen);
  trigger("undo");
  EXPECT_FALSE(chispa::find(show().controllers, id)->ports[0].screen.isFullScreen);
}

TEST_F(Controls, ZonesAreCombinedTurnedRoundAndDividedIntoCells) {
  window_.showWorkspace(Workspace::Plan);
  const int before = cellsIn("Floods") + cellsIn("Uplights");
  selection_.select(zone("Floods").id);
  choose("combineZone", QStringLiteral("Uplights"));
  const auto* made = std::get_if<ZoneId>(&selection_.now());
  ASSERT_TRUE(made) << "the new zone is selected";
  const ZoneId both = *made;
  const auto cells = [&] { return cellsOf(show(), mapPixels(show()), *chispa::find(show().zones, both)); };
  EXPECT_EQ(cells().count(), before);
  const std::uint32_t last = cells().pixels.back();
  press("reverseZone");
  EXPECT_EQ(cells().pixels.front(), last);
  // One zone of twelve cells, a post each.
  selection_.select(zone("Posts").id);
  const std::size_t zones = show().zones.size();
  choose("divideBy", QStringLiteral("fixtures"));
  type("divideName", QStringLiteral("Post by post"));
  the<QCheckBox>("divideAsCells")->click();
  press("divideZone");
  ASSERT_EQ(show().zones.size(), zones + 1);
  EXPECT_EQ(cellsIn("Post by post"), 12);
}

TEST_F(Controls, AClipHasALayerABlendAndAStrength) {
  chosen();
  setNumber("layer", 3);
  EXPECT_EQ(chosen().layer, 2) << "people count from 1";
  choose("blend", QStringLiteral("multiply"));
  EXPECT_EQ(chosen().blend, Blend::Multiply);
  setNumber("strength", 55);
  EXPECT_EQ(chosen().strength, 0.55);
  for (int i = 0; i < 3; ++i) trigger("undo");
  EXPECT_EQ(chosen().strength, 1);
  EXPECT_EQ(chosen().blend, Blend::Normal);
}

TEST_F(Controls, AnEchoSaysWhoseLightAndOfWhichCell) {
  chosen();
  choose("effect", QStringLiteral("Echo"));
  QCoreApplication::processEvents();
  choose("param-source", QStringLiteral("Booth sign"));
  EXPECT_EQ(std::get<double>(chosen().params.at("source")), zone("Booth sign").id.value);
  setNumber("param-which", 7);
  EXPECT_EQ(std::get<double>(chosen().params.at("which")), 7);
}

TEST_F(Controls, APictureIsTurnedAndMirroredByKeys) {
  chosen();
  trigger("turnPicture");
  EXPECT_EQ(told_.size(), 1) << "a ribbon is no picture";
  choose("effect", QStringLiteral("Picture"));
  const auto value = [&](const char* key) -> ParamValue {
    const auto found = chosen().params.find(key);
    return found == chosen().params.end() ? ParamValue{0.0} : found->second;
  };
  for (const double turned : {90.0, 180.0, -90.0, 0.0}) {
    QTest::keyClick(&window_, Qt::Key_D, Qt::ControlModifier | Qt::AltModifier);
    EXPECT_EQ(std::get<double>(value("turned")), turned);
  }
  trigger("mirrorPicture");
  EXPECT_EQ(value("mirrored"), ParamValue{true});
  trigger("upsidePicture");
  EXPECT_EQ(value("upside_down"), ParamValue{true});
  trigger("mirrorPicture");
  EXPECT_EQ(value("mirrored"), ParamValue{false});
}

TEST_F(Controls, AClipStandsOnEveryFreeMark) {
  const Clip like = chosen();
  std::vector<Micros> places;
  for (const int after_ms : {150, 320, 510})
    places.push_back(like.start + std::chrono::milliseconds(after_ms));
  document_.apply(QStringLiteral("marks"), [&](Show& s) {
    for (const Micros at : places) addMark(s, score().id, LaneKind::Free, "Marks", at, "m");
  });
  trigger("fillMarks");
  std::set<Micros> begins;
  for (const auto& clip : score().clips)
    if (clip->effect == like.effect && clip->zone == like.zone) begins.insert(clip->start);
  for (const Micros at : places) EXPECT_TRUE(begins.contains(at)) << at.count();
}

TEST_F(Controls, TwoMarksABarApartMakeARegularGrid) {
  document_.apply(QStringLiteral("marks"), [&](Show& s) {
    for (const int at_ms : {10'000, 12'000})
      addMark(s, score().id, LaneKind::Free, "Marks", std::chrono::milliseconds(at_ms), "m");
  });
  const int per = beatsPerBar(score());
  trigger("gridFromMarks");
  const MarkLane* bars = laneOf(score(), LaneKind::Bars);
  const MarkLane* beats = laneOf(score(), LaneKind::Beats);
  ASSERT_TRUE(bars && beats);
  for (std::size_t i = 1; i < bars->marks.size(); ++i)
    EXPECT_EQ(bars->marks[i].at - bars->marks[i - 1].at, Micros(2'000'000));
  EXPECT_NEAR(seconds(beats->marks[1].at - beats->marks[0].at), 2.0 / per, 1e-5);
}

TEST_F(Controls, TheSoundBeginsLater) {
  selection_.select(score().id);
  setNumber("audioStart", 1.5);
  EXPECT_EQ(score().audioStart, Micros(1'500'000));
  trigger("undo");
  EXPECT_EQ(score().audioStart, Micros(0));
}

/// Whatever the workspace, a finder is begun by its name.
TEST_F(Controls, FindersAreBegunByTheirNames) {
  trigger("finder0");
  EXPECT_EQ(window_.workspace(), Workspace::Bench);
  EXPECT_TRUE(the<QWidget>("finderView")->isVisible());
  trigger("finderCamera");
  EXPECT_TRUE(the<QWidget>("cameraSource")->isVisible());
}

/// Left and right of a mouse, and the keys, on the dots of a frame; frames are added and taken away.
TEST_F(Controls, ADrawingIsDrawnWithMouseAndKeys) {
  const ScoreId open = score().id;
  ClipId id;
  document_.apply(QStringLiteral("clip"), [&](Show& s) {
    Clip clip = *find(s.scores, open)->clips.front();
    id = clip.id = s.newId<ClipId>();
    clip.effect = "drawing";
    clip.params = {};
    changeItem(s.scores, open, [&](Score& one) { one.clips.push_back(std::make_shared<const Clip>(clip)); });
  });
  selection_.select(ClipIds{id});
  press("param-dots");
  QCoreApplication::processEvents();
  DrawingEditor* editor = nullptr;
  for (QWidget* widget : QApplication::topLevelWidgets())
    if (auto* one = qobject_cast<DrawingEditor*>(widget); one && one->isVisible()) editor = one;
  ASSERT_TRUE(editor);
  auto* field = editor->findChild<DotField*>();
  editor->findChild<QSpinBox*>(QStringLiteral("dotColumns"))->setValue(8);
  editor->findChild<QSpinBox*>(QStringLiteral("dotRows"))->setValue(4);
  const auto drawn = [&] {
    return parseDrawing(std::get<std::string>(findClip(score(), id)->params.at("dots")));
  };
  const double side = std::min(field->width() / 8.0, field->height() / 4.0);
  const QPointF corner((field->width() - side * 8) / 2, (field->height() - side * 4) / 2);
  const auto dot = [&](int column, int row) {
    return (corner + QPointF(column + 0.5, row + 0.5) * side).toPoint();
  };
  for (int column = 0; column < 8; ++column) QTest::mouseClick(field, Qt::RightButton, {}, dot(column, 1));
  editor->findChild<QListWidget*>(QStringLiteral("shades"))->setCurrentRow(2);
  drag(field, dot(1, 1), dot(5, 1));
  EXPECT_EQ(drawn().at(0, 0, 1), DotDrawing::kClear);
  for (const int column : {1, 2, 3, 4, 5})
    EXPECT_EQ(drawn().at(0, column, 1), DotDrawing::kShades - 3) << column;
  QTest::mouseClick(field, Qt::RightButton, {}, dot(3, 1));
  EXPECT_EQ(drawn().at(0, 3, 1), DotDrawing::kClear);
  // The keys go on from there.
  field->setFocus();
  QTest::keyClick(field, Qt::Key_Right);
  QTest::keyClick(field, Qt::Key_Delete);
  QTest::keyClick(field, Qt::Key_Down);
  QTest::keyClick(field, Qt::Key_Space);
  EXPECT_EQ(drawn().at(0, 4, 1), DotDrawing::kClear);
  EXPECT_EQ(drawn().at(0, 4, 2), DotDrawing::kShades - 3);
  const std::size_t frames = drawn().frames.size();
  QTest::mouseClick(editor->findChild<QPushButton*>(QStringLiteral("addFrame")), Qt::LeftButton);
  ASSERT_EQ(drawn().frames.size(), frames + 1);
  EXPECT_EQ(drawn().at(1, 4, 2), DotDrawing::kShades - 3) << "a copy";
  QTest::mouseClick(field, Qt::RightButton, {}, dot(4, 2));
  EXPECT_EQ(drawn().at(1, 4, 2), DotDrawing::kClear);
  EXPECT_EQ(drawn().at(0, 4, 2), DotDrawing::kShades - 3) << "the other frame stays";
  QTest::mouseClick(editor->findChild<QPushButton*>(QStringLiteral("dropFrame")), Qt::LeftButton);
  EXPECT_EQ(drawn().frames.size(), frames);
}

/// What the signal goes to is chosen in the tree: a controller, one of its ports, channels.
TEST_F(Controls, TheBenchDrivesWhatIsChosenInItsTree) {
  window_.showWorkspace(Workspace::Bench);
  QCoreApplication::processEvents();
  auto* tree = the<TargetList>("benchTargets");
  press("walkButton");
  const auto lit = [&]() -> const std::optional<engine::TestSignal>& { return stage_.signal(); };
  auto* controller = tree->topLevelItem(0);
  ASSERT_GE(controller->childCount(), 3);
  const auto click = [&](QTreeWidgetItem* item) {
    tree->scrollToItem(item);
    QTest::mouseClick(tree->viewport(), Qt::LeftButton, {}, tree->visualItemRect(item).center());
    QCoreApplication::processEvents();
  };
  click(controller->child(1));
  EXPECT_EQ(tree->target(), (BenchTarget{BenchTarget::Kind::Port, show().controllers[0]->id, 1, 0}));
  ASSERT_TRUE(lit());
  EXPECT_EQ(lit()->target.port, 1);
  QTest::keyClick(tree, Qt::Key_Up);
  EXPECT_EQ(tree->target().port, 0);
  click(controller);
  EXPECT_EQ(tree->target().kind, BenchTarget::Kind::Controller);
  EXPECT_FALSE(lit()->target.port) << "all of its ports";
  click(controller->child(controller->childCount() - 1));
  EXPECT_EQ(tree->target().kind, BenchTarget::Kind::Channels);
  EXPECT_TRUE(lit()->target.channels);
}

/// Answers the dialog that asks for a file.
void answerWith(const QString& file) {
  QTimer::singleShot(0, qApp, [file] {
    auto* dialog = qobject_cast<QFileDialog*>(QApplication::activeModalWidget());
    if (!dialog) return answerWith(file);
    auto* name = dialog->findChild<QLineEdit*>(QStringLiteral("fileNameEdit"));
    name->setText(file);
    QTest::keyClick(name, Qt::Key_Return);
  });
}

TEST_F(Controls, APaletteIsExported) {
  const Palette palette = *show().palettes.front();
  selection_.select(palette.id);
  QCoreApplication::processEvents();
  const auto file = folder_.path() / "lantern.gpl";
  answerWith(QString::fromStdString(file.string()));
  press("exportPalette");
  const auto read = readPalette(file);
  ASSERT_TRUE(read) << read.failure().text();
  ASSERT_FALSE((*read).stops.empty());
  EXPECT_EQ((*read).stops.front().colour, palette.stops.front().colour);
}

TEST_F(Controls, MasterAndBlackoutHoldTheLightBack) {
  stage_.seek(Micros(54'300'000));
  auto* master = the<QSlider>("master");
  master->setFocus();
  QTest::keyClick(master, Qt::Key_Home);
  EXPECT_EQ(master->value(), master->minimum());
  QTest::keyClick(master, Qt::Key_End);
  EXPECT_EQ(master->value(), master->maximum());
  auto* blackout = window_.findChildren<QPushButton*>(QStringLiteral("pulsePart")).front();
  trigger("toggleBlackout");
  EXPECT_TRUE(blackout->isChecked());
  trigger("toggleBlackout");
  EXPECT_FALSE(blackout->isChecked());
}

}  // namespace
}  // namespace chispa::desk
