// SPDX-License-Identifier: GPL-3.0-or-later
// A maker composes through the real window: from a piece of music and an empty score to a hundred clips on
// beats.
#include <fstream>

#include "carousel/carousel.h"
#include "window.h"
#include <QLabel>
#include <QListWidget>
#include <QPlainTextEdit>
#include <QScrollBar>

#include "core/edit/markedits.h"
#include "core/edit/wireedits.h"
#include "core/files/portsettings.h"
#include "core/wire/patch.h"
#include "desk/score/composing.h"
#include "node/interface.h"
#include "node/node.h"

namespace chispa::desk {
namespace {

class ComposerTest : public WindowTest {
 protected:
  ComposerTest() {
    window_.resize(1280, 800);
    document_.apply(QStringLiteral("the carousel without its music"), [](Show& s) {
      s = demo::carousel();
      s.scores.clear();
    });
    document_.seal();
    window_.showWorkspace(Workspace::Score);
    QCoreApplication::processEvents();
  }
  TimelineView& timeline() { return window_.scorePage().timeline(); }
  const Score& score() const { return *stage_.score(); }
  ZoneId zone(const char* name) const { return findNamed(show().zones, name)->id; }

  /// Each gesture of the hand counts: a click, a double click, a drag, a key.
  void act(const std::function<void()>& gesture) {
    ++actions_;
    gesture();
    QCoreApplication::processEvents();
  }
  void chooseEffect(const char* key) {
    act([&] {
      auto* shelf = the<QListWidget>("effectShelf");
      for (int i = 0; i < shelf->count(); ++i)
        if (shelf->item(i)->data(Qt::UserRole).toString() == QLatin1String(key)) {
          shelf->scrollToItem(shelf->item(i));
          QTest::mouseClick(shelf->viewport(), Qt::LeftButton, {},
                            shelf->visualItemRect(shelf->item(i)).center());
        }
    });
    EXPECT_EQ(timeline().chosenEffect(), QLatin1String(key));
  }
  void choosePalette(int row) {
    act([&] {
      auto* list = the<QListWidget>("paletteList");
      QTest::mouseClick(list->viewport(), Qt::LeftButton, {}, list->visualItemRect(list->item(row)).center());
    });
  }
  /// Double click on a stave where bar `bar` begins.
  void putClip(const char* name, std::size_t bar) {
    act([&] {
      const Micros at = instantsOf(score(), LaneKind::Bars).at(bar);
      const QRectF stave = timeline().staveBox(zone(name));
      // The stave is scrolled to the foot of the view, from wherever it is.
      timeline().verticalScrollBar()->setValue(static_cast<int>(stave.bottom()) -
                                               timeline().viewport()->height() +
                                               timeline().verticalScrollBar()->value());
      QTest::mouseDClick(
          timeline().viewport(), Qt::LeftButton, {},
          QPointF(timeline().xOf(at) + 1, timeline().staveBox(zone(name)).center().y()).toPoint());
    });
  }
  void menu(const char* action) {
    act([&] { trigger(action); });
  }

  int actions_ = 0;
};

TEST_F(ComposerTest, AHundredClipsOnBeatsInFewActions) {
  const Show before = show();
  act([this] { window_.scorePage().newScore(kWaltz); });
  ASSERT_TRUE(eventually([this] { return stage_.score() && score().length.count() > 0; }));
  settle();
  ASSERT_GT(instantsOf(score(), LaneKind::Beats).size(), 150u);

  // The rim blooms on every beat, the lanterns take turns bar by bar, the posts one after the other.
  choosePalette(2);
  chooseEffect("bloom");
  putClip("Canopy rim", 0);
  menu("fillBeats");
  chooseEffect("turnabout");
  putClip("Lanterns", 0);
  menu("fillBars");
  chooseEffect("pour");
  putClip("Post 1", 4);
  menu("alternateBeats");
  chooseEffect("slats");
  putClip("Column", 4);
  menu("repeatClips");
  settle();
  for (int round = 0; score().clips.size() < 100 && round < 8; ++round) {
    chooseEffect(round % 2 == 0 ? "ripples" : "comets");
    putClip("Path edge", 6 + 6 * static_cast<std::size_t>(round));
    menu("fillBeats");
  }
  EXPECT_GE(score().clips.size(), 100u);
  EXPECT_LT(actions_, 150);
  const auto beats = instantsOf(score(), LaneKind::Beats);
  int onBeat = 0;
  for (const auto& clip : score().clips)
    onBeat += std::binary_search(beats.begin(), beats.end(), clip->start) ? 1 : 0;
  EXPECT_GE(onBeat, 100);

  // Everything is taken back, and comes again.
  const Show made = show();
  while (!stage_.score() || !score().clips.empty()) trigger("undo");
  while (document_.canRedo()) trigger("redo");
  EXPECT_EQ(show(), made);
  while (!(show() == before) && document_.canUndo()) trigger("undo");
  EXPECT_EQ(show(), before);
  EXPECT_TRUE(told_.isEmpty()) << told_.join(QLatin1Char('\n')).toStdString();
}

TEST_F(ComposerTest, AnEditWhileItPlaysIsAtTheNode) {
  node::Node node({"Node", 8, test::loopbackAddress(9), {}});
  std::string why;
  ASSERT_TRUE(node.start(why)) << why;
  document_.apply(QStringLiteral("one box"), [](Show& s) {
    const auto all = s.controllers;
    for (const auto& controller : all)
      if (controller->name != "Rim box") deleteController(s, controller->id);
    changeItem(s.controllers, s.controllers.front()->id,
               [](Controller& c) { c.host = test::loopbackAddress(9); });
  });
  node.setSettings(*node::parseSettings(toJson(portSettings(show(), derivePatch(show()), 0)).dump(), 8, why));
  window_.scorePage().newScore(kWaltz);
  ASSERT_TRUE(eventually([this] { return stage_.score() && score().length.count() > 0; }));
  chooseEffect("hold");
  putClip("Canopy rim", 0);
  menu("fillBars");
  settle();
  stage_.switchLight(true);
  stage_.seek(instantsOf(score(), LaneKind::Bars)[0]);
  act([this] { trigger("togglePlay"); });
  ASSERT_TRUE(stage_.isPlaying());
  ASSERT_TRUE(eventually([&] { return node.state()["ports"][0]["shows"][5] != "#000000"; }));
  // All rim clips are selected still: black takes their place while they play.
  std::uint64_t taken = 0;
  const auto noted = QObject::connect(&stage_, &Stage::compiledChanged,
                                      [&] { taken = stage_.player().stats().frames.load(); });
  choose("effect", QStringLiteral("Black"));
  EXPECT_TRUE(stage_.isPlaying());
  // One frame may be on its way when the new show is taken over; the next one has the change.
  ASSERT_TRUE(eventually([&] { return taken > 0 && stage_.player().stats().frames.load() >= taken + 2; }));
  QObject::disconnect(noted);
  const PixelFrame& lit = stage_.player().latestFrame();
  EXPECT_EQ(lit.r[5] + lit.g[5] + lit.b[5], 0);
  EXPECT_TRUE(eventually([&] { return node.state()["ports"][0]["shows"][5] == "#000000"; }));
  trigger("togglePlay");
  stage_.switchLight(false);
}

TEST_F(ComposerTest, ClipsAreBandedCopiedCutSplitStretchedAndMadeBlocks) {
  window_.scorePage().newScore(kWaltz);
  ASSERT_TRUE(eventually([this] { return stage_.score() && score().length.count() > 0; }));
  settle();
  chooseEffect("comets");
  putClip("Canopy rim", 0);
  putClip("Canopy rim", 4);
  const auto first = score().clips[0];
  // A band from the empty end of the stave over both.
  const QRectF stave = timeline().staveBox(zone("Canopy rim"));
  const auto bars = instantsOf(score(), LaneKind::Bars);
  drag(timeline().viewport(), {timeline().xOf(bars[12]), stave.bottom() - 3},
       {timeline().xOf(bars[0]) - 1, stave.top() + 3});
  EXPECT_EQ(selection_.clips().size(), 2u);
  menu("copyClips");
  stage_.seek(bars[20]);
  menu("pasteClips");
  ASSERT_EQ(score().clips.size(), 4u);
  EXPECT_EQ(findClip(score(), selection_.clips()[0])->start, bars[20]);
  menu("cutClips");
  EXPECT_EQ(score().clips.size(), 2u);
  selection_.select(ClipIds{first->id});
  stage_.seek(first->start + first->length / 2);
  menu("splitClips");
  EXPECT_EQ(score().clips.size(), 3u);
  menu("stretchClips");
  const Clip* right = findClip(score(), selection_.clips()[0]);
  EXPECT_DOUBLE_EQ(right->speed, 0.5);
  trigger("selectAll");
  menu("makeBlock");
  EXPECT_EQ(score().clips.size(), 1u);
  ASSERT_EQ(show().blocks.size(), 1u);
  settle();
  trigger("selectAll");
  menu("dissolveBlock");
  EXPECT_EQ(score().clips.size(), 3u);
}

TEST_F(ComposerTest, NothingIsComposedWhereItIsNotSeen) {
  EXPECT_TRUE(the<QAction>("pasteClips")->isEnabled());
  window_.showWorkspace(Workspace::Plan);
  EXPECT_FALSE(the<QAction>("pasteClips")->isEnabled());
  EXPECT_FALSE(the<QAction>("tapBeat")->isEnabled());
}

TEST_F(ComposerTest, ParametersAreMovedByTheMusicFromTheInspector) {
  window_.scorePage().newScore(kWaltz);
  ASSERT_TRUE(eventually([this] { return stage_.score() && score().length.count() > 0; }));
  chooseEffect("gauge");
  putClip("Roof ribs", 0);
  choose("motion-value", QStringLiteral("follows the level"));
  EXPECT_EQ(score().clips[0]->motions.at("value").driver, Driver::Level);
  choose("motion-value", QStringLiteral("stays"));
  EXPECT_TRUE(score().clips[0]->motions.empty());
}

TEST_F(ComposerTest, ASlowScorePlaysOnAndOnlyAPartIfAsked) {
  window_.scorePage().newScore(kWaltz);
  ASSERT_TRUE(eventually([this] { return stage_.score() && score().length.count() > 0; }));
  settle();
  trigger("speedHalf");
  EXPECT_EQ(stage_.rate(), 0.5);
  stage_.seek(Micros(5'000'000));
  trigger("playPart");
  ASSERT_TRUE(stage_.part());
  EXPECT_LE(stage_.part()->from, Micros(5'000'000));
  trigger("togglePlay");
  EXPECT_TRUE(eventually([this] { return stage_.position() > Micros(5'050'000); }));
  trigger("togglePlay");
  trigger("playPart");
  EXPECT_FALSE(stage_.part());
}

TEST_F(ComposerTest, AScoreIsGoneThroughFast) {
  window_.scorePage().newScore(kWaltz);
  ASSERT_TRUE(eventually([this] { return stage_.score() && score().length.count() > 0; }));
  settle();
  for (const auto& [name, rate] : {std::pair{"speedTwice", 2.0}, std::pair{"speedFour", 4.0}}) {
    trigger(name);
    EXPECT_EQ(stage_.rate(), rate);
    stage_.seek(Micros(2'000'000));
    trigger("togglePlay");
    EXPECT_TRUE(eventually([this] { return stage_.position() > Micros(2'400'000); }));
    EXPECT_TRUE(stage_.isPlaying());
    trigger("togglePlay");
  }
  trigger("speedFull");
  EXPECT_EQ(stage_.rate(), 1);
}

TEST_F(ComposerTest, AFormulaSaysItsMistakeAtTheLetter) {
  window_.scorePage().newScore(kWaltz);
  ASSERT_TRUE(eventually([this] { return stage_.score() && score().length.count() > 0; }));
  chooseEffect("formula");
  putClip("Column", 0);
  auto* field = the<QPlainTextEdit>("formula");
  field->selectAll();
  QTest::keyClicks(field, QStringLiteral("sway(x"));
  EXPECT_TRUE(the<QLabel>("formulaWords")->text().contains(QStringLiteral("Line 1, letter 7")))
      << the<QLabel>("formulaWords")->text().toStdString();
  QTest::keyClicks(field, QStringLiteral(" - bar)"));
  EXPECT_TRUE(the<QLabel>("formulaWords")->text().startsWith(QStringLiteral("✓")));
  EXPECT_EQ(std::get<std::string>(score().clips[0]->params.at("formula")), "sway(x - bar)");
  trigger("undo");
  EXPECT_TRUE(eventually([&] {
    return field->toPlainText() ==
           QStringLiteral("light = sway(across * 3 - bar) ^ 2\nshade = saw(radius - beat / 4)");
  })) << "the field follows";
}

TEST_F(ComposerTest, PalettesAreImportedHarmonisedAndMirrored) {
  const auto file = folder_.path() / "dusk.css";
  std::ofstream(file) << "linear-gradient(#102040, #ff8040 30%, #ffe0c0)";
  window_.scorePage().importPalette(QString::fromStdString(file.string()));
  const auto palette = [this] { return *show().palettes.back(); };
  EXPECT_EQ(palette().name, "dusk");
  ASSERT_EQ(palette().stops.size(), 3u);
  press("mirrorPalette");
  EXPECT_EQ(palette().stops.size(), 5u);
  press("harmonyOpposites");
  EXPECT_EQ(palette().stops.size(), 4u);
  trigger("undo");
  trigger("undo");
  EXPECT_EQ(palette().stops.size(), 3u);
  window_.scorePage().importPalette(QStringLiteral("/nowhere.gpl"));
  EXPECT_EQ(told_.size(), 1);
}

TEST_F(ComposerTest, TwentyThousandClipsAreLaidOutAndMoved) {
  document_.apply(QStringLiteral("many"), [](Show& s) {
    Score score;
    score.id = s.newId<ScoreId>();
    score.name = "Many";
    score.length = Micros(600'000'000);
    for (const auto& z : s.zones) score.staves.push_back(z->id);
    for (int i = 0; i < 20'000; ++i) {
      Clip clip;
      clip.id = s.newId<ClipId>();
      clip.zone = s.zones[static_cast<std::size_t>(i) % s.zones.size()]->id;
      clip.effect = "bloom";
      clip.palette = s.palettes.front()->id;
      clip.start = Micros(i / 25 * 700'000);
      clip.length = Micros(600'000);
      score.clips.push_back(std::make_shared<const Clip>(clip));
    }
    put(s.scores, score);
  });
  settle();
  timeline().zoomToAll();
  QImage picture = window_.grab().toImage();
  EXPECT_FALSE(picture.isNull());
  trigger("selectAll");
  EXPECT_EQ(selection_.clips().size(), 20'000u);
  QTest::keyClick(&timeline(), Qt::Key_Right);
  EXPECT_GT(score().clips.front()->start, Micros(0));
  trigger("undo");
  EXPECT_EQ(score().clips.front()->start, Micros(0));
}

}  // namespace
}  // namespace chispa::desk
