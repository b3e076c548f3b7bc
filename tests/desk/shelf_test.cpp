// SPDX-License-Identifier: GPL-3.0-or-later
// What a maker keeps and finds again in Score: curves drawn on clips, effects of one's own, blocks, marks,
// films.
#include <fstream>

#include "carousel/carousel.h"
#include "scorewindow.h"
#include <QCheckBox>
#include <QDragEnterEvent>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QMimeData>
#include <QProgressBar>
#include <QSpinBox>

#include "core/check/scoresearch.h"
#include "core/edit/clipedits.h"
#include "core/edit/scoreedits.h"
#include "core/files/midifile.h"
#include "core/recording/recording.h"
#include "desk/score/chosenthing.h"
#include "desk/score/composing.h"
#include "desk/score/curvehand.h"
#include "desk/score/overviewstrip.h"

namespace chispa::desk {
namespace {

class ShelfTest : public ScoreWindowTest {
 protected:
  /// An empty silent score of a minute with one clip on the rim.
  const Clip& oneClip(const char* effect) {
    ScoreId id;
    document_.apply(QStringLiteral("plain"), [&](Show& s) {
      id = addScore(s, "Plain", {}, Micros(60'000'000));
      addClip(s, id, findNamed(s.zones, "Canopy rim")->id, effect, s.palettes.front()->id, Micros(5'000'000),
              Micros(20'000'000));
    });
    stage_.openScore(id);
    settle();
    selection_.select(ClipIds{score().clips.front()->id});
    QCoreApplication::processEvents();
    return *score().clips.front();
  }
  const Clip& clip() const { return *score().clips.front(); }
};

TEST_F(ShelfTest, ACurveIsDrawnOnTheClip) {
  oneClip("comets");
  const double before = timeline().clipBox(clip().id).height();
  choose("motion-tail", QStringLiteral("rises over"));
  const QRectF box = timeline().clipBox(clip().id);
  EXPECT_GT(box.height(), 2 * before) << "there is room to draw";
  const auto points = [this] { return clip().motions.at("tail").points; };
  ASSERT_EQ(points().size(), 2u);
  // A double click on the line adds a point in its middle, which is dragged up.
  const QPointF middle = CurveHand::spotOf(box, {0.5, 0.5});
  QTest::mouseDClick(timeline().viewport(), Qt::LeftButton, {}, middle.toPoint());
  ASSERT_EQ(points().size(), 3u);
  EXPECT_EQ(score().clips.size(), 1u) << "no clip is added below it";
  drag(timeline().viewport(), middle, CurveHand::spotOf(box, {0.25, 0.9}));
  EXPECT_NEAR(points()[1].at, 0.25, 0.02);
  EXPECT_NEAR(points()[1].value, 0.9, 0.05);
  EXPECT_EQ(clip().start, Micros(5'000'000)) << "the clip stays where it is";
  // The same by the keyboard, and what makes no sense changes nothing.
  EXPECT_TRUE(the<QLineEdit>("curve-tail")->text().startsWith(QStringLiteral("0:0 25")));
  type("curve-tail", QStringLiteral("0:100 50:0 100:100"));
  ASSERT_EQ(points().size(), 3u);
  EXPECT_EQ(points()[1], (CurvePoint{0.5, 0}));
  type("curve-tail", QStringLiteral("fast"));
  EXPECT_EQ(points()[1], (CurvePoint{0.5, 0}));
  setNumber("motionHigh-tail", 0.7);
  EXPECT_EQ(clip().motions.at("tail").high, 0.7);
  QContextMenuEvent away(QContextMenuEvent::Mouse, CurveHand::spotOf(box, {0.5, 0}).toPoint(), {});
  QCoreApplication::sendEvent(timeline().viewport(), &away);
  EXPECT_EQ(points().size(), 2u);
  while (document_.canUndo() && !clip().motions.empty()) trigger("undo");
  EXPECT_TRUE(clip().motions.empty());
}

TEST_F(ShelfTest, AnEffectOfOnesOwnIsKeptRenamedPlacedAndTakenAway) {
  oneClip("comets");
  setNumber("param-heads", 9);
  trigger("saveOwnEffect");
  ASSERT_EQ(show().ownEffects.size(), 1u);
  auto* shelf = the<QListWidget>("effectShelf");
  ASSERT_EQ(shelf->currentItem()->text(), QStringLiteral("My Comets"));
  EXPECT_EQ(timeline().chosenEffect(), wordsOf(show().ownEffects.front()->id));
  shelf->currentItem()->setText(QStringLiteral("Nine tails"));
  EXPECT_EQ(show().ownEffects.front()->name, "Nine tails");
  const ClipId placed = timeline().addClipAt(timeline().chosenEffect(), findNamed(show().zones, "Column")->id,
                                             Micros(30'000'000));
  ASSERT_TRUE(findClip(score(), placed));
  EXPECT_EQ(findClip(score(), placed)->params, show().ownEffects.front()->params);
  QTest::keyClick(shelf, Qt::Key_Delete);
  EXPECT_TRUE(show().ownEffects.empty());
  trigger("undo");
  EXPECT_EQ(show().ownEffects.size(), 1u);
  shelf->setCurrentRow(0);
  QTest::keyClick(shelf, Qt::Key_Delete);
  EXPECT_TRUE(told_.last().contains(QStringLiteral("only your own"))) << told_.last().toStdString();
}

TEST_F(ShelfTest, ABlockIsPlacedFromTheShelfAndChangesWhereverItStands) {
  oneClip("bloom");
  trigger("makeBlock");
  ASSERT_EQ(show().blocks.size(), 1u);
  const BlockId block = show().blocks.front()->id;
  const ClipId second =
      timeline().addClipAt(wordsOf(block), findNamed(show().zones, "Column")->id, Micros(30'000'000));
  ASSERT_EQ(findClip(score(), second)->block, block);
  trigger("openBlock");
  ASSERT_EQ(selection_.clips().size(), 1u);
  EXPECT_EQ(findClip(score(), selection_.clips().front())->effect, "bloom");
  choose("effect", QStringLiteral("Ripples"));
  trigger("closeBlock");
  ASSERT_EQ(show().blocks.size(), 1u);
  EXPECT_EQ(show().blocks.front()->id, block);
  EXPECT_EQ(show().blocks.front()->clips.front()->effect, "ripples");
  EXPECT_EQ(std::count_if(score().clips.begin(), score().clips.end(),
                          [block](const auto& c) { return c->block == block; }),
            2)
      << "it stands where it stood, changed in both places";
  auto* shelf = the<QListWidget>("effectShelf");
  shelf->setCurrentRow(shelf->count() - 1);
  QTest::keyClick(shelf, Qt::Key_Delete);
  EXPECT_TRUE(told_.last().contains(QStringLiteral("still stands"))) << told_.last().toStdString();
  EXPECT_EQ(show().blocks.size(), 1u);
}

TEST_F(ShelfTest, FavouritesComeFirstEverywhereAndAreKept) {
  window_.showWorkspace(Workspace::Score);
  auto* shelf = the<QListWidget>("effectShelf");
  const QString second = shelf->item(1)->data(Qt::UserRole).toString();
  const QString last = QString::fromStdString(effects().back().key);
  for (int i = 0; i < shelf->count(); ++i)
    if (shelf->item(i)->data(Qt::UserRole).toString() == last) shelf->setCurrentRow(i);
  trigger("favouriteEffect");
  EXPECT_EQ(shelf->item(0)->data(Qt::UserRole).toString(), last);
  EXPECT_TRUE(shelf->item(0)->text().startsWith(QStringLiteral("★")));
  EXPECT_EQ(shelf->currentRow(), 0) << "what is chosen stays chosen";
  EXPECT_EQ(shelf->item(2)->data(Qt::UserRole).toString(), second) << "the others keep their order";
  window_.showWorkspace(Workspace::Run);
  auto* box = the<QComboBox>("atOnceEffect");
  EXPECT_EQ(box->itemData(1).toString(), last);
  window_.showWorkspace(Workspace::Score);
  trigger("favouriteEffect");
  EXPECT_EQ(shelf->item(1)->data(Qt::UserRole).toString(), second);
}

/// A setting of the shelf's effect: the item says it, what is placed has its numbers, and the form puts a
/// clip to another in one step.
TEST_F(ShelfTest, SettingsArePlacedAndChosenInTheForm) {
  auto* shelf = the<QListWidget>("effectShelf");
  the<QLineEdit>("effectSearch")->setText(QStringLiteral("candle"));
  for (int i = 0; i < shelf->count(); ++i)
    if (!shelf->item(i)->isHidden()) shelf->setCurrentRow(i);
  ASSERT_EQ(shelf->currentItem()->text(), QStringLiteral("Hearth")) << "found by the name of a setting";
  EXPECT_TRUE(shelf->currentItem()->toolTip().contains(QStringLiteral("Candle")));
  trigger("nextSetting");
  EXPECT_EQ(shelf->currentItem()->text(), QStringLiteral("Hearth · Candle"));
  const ClipId placed = timeline().addClipAt(timeline().chosenEffect(), findNamed(show().zones, "Column")->id,
                                             Micros(30'000'000));
  const auto heightOf = [&] { return std::get<double>(findClip(score(), placed)->params.at("height")); };
  EXPECT_DOUBLE_EQ(heightOf(), 0.7);
  EXPECT_EQ(the<QComboBox>("setting")->currentText(), QStringLiteral("Candle"));
  setNumber("param-speed", 2);
  EXPECT_EQ(the<QComboBox>("setting")->currentText(), QStringLiteral("own values"));
  choose("setting", QStringLiteral("Bonfire"));
  EXPECT_DOUBLE_EQ(heightOf(), 1.8);
  trigger("undo");
  EXPECT_DOUBLE_EQ(heightOf(), 0.7);
  for (std::size_t i = 0; i < findEffect("hearth")->settings.size(); ++i) trigger("nextSetting");
  EXPECT_EQ(shelf->currentItem()->text(), QStringLiteral("Hearth")) << "behind the last one, itself again";
}

TEST_F(ShelfTest, APaletteIsDroppedOnClips) {
  oneClip("ribbon");
  const PaletteId wanted = show().palettes.back()->id;
  ASSERT_NE(clip().palette, wanted);
  QMimeData data;
  data.setData(QLatin1String(kPaletteMime), QByteArray::number(wanted.value));
  const QPointF at = timeline().clipBox(clip().id).center();
  QDragEnterEvent enter(at.toPoint(), Qt::CopyAction, &data, Qt::LeftButton, {});
  QCoreApplication::sendEvent(timeline().viewport(), &enter);
  EXPECT_TRUE(enter.isAccepted());
  QDropEvent drop(at, Qt::CopyAction, &data, Qt::LeftButton, {});
  QCoreApplication::sendEvent(timeline().viewport(), &drop);
  EXPECT_EQ(clip().palette, wanted);
  trigger("undo");
  EXPECT_NE(clip().palette, wanted);
}

TEST_F(ShelfTest, ClipsAndMarksAreFound) {
  const auto lettering = searchScore(show(), score(), "LETTERing");
  ASSERT_FALSE(lettering.clips.empty());
  trigger("findClips");
  auto* field = the<QLineEdit>("scoreSearch");
  QTest::keyClicks(field, QStringLiteral("lettering"));
  QTest::keyClick(field, Qt::Key_Return);
  ASSERT_EQ(selection_.clips(), ClipIds{lettering.clips.front()});
  const QRectF box = timeline().clipBox(lettering.clips.front());
  EXPECT_TRUE(timeline().viewport()->rect().intersects(box.toRect()));
  EXPECT_TRUE(searchScore(show(), score(), "").clips.empty());
  field->setText(QStringLiteral("no such thing"));
  QTest::keyClick(field, Qt::Key_Return);
  EXPECT_TRUE(told_.last().contains(QStringLiteral("Nothing")));
  auto* shelf = the<QListWidget>("effectShelf");
  the<QLineEdit>("effectSearch")->setText(QStringLiteral("lightning"));
  int shown = 0;
  for (int i = 0; i < shelf->count(); ++i) shown += shelf->item(i)->isHidden() ? 0 : 1;
  EXPECT_EQ(shown, 1) << "the storm, by its summary";
}

TEST_F(ShelfTest, EveryWorkspaceFitsASmallScreen) {
  for (const Workspace one :
       {Workspace::Plan, Workspace::Wire, Workspace::Bench, Workspace::Score, Workspace::Run}) {
    window_.showWorkspace(one);
    window_.resize(1280, 800);
    QCoreApplication::processEvents();
    EXPECT_EQ(window_.size(), QSize(1280, 800)) << static_cast<int>(one);
  }
}

TEST_F(ShelfTest, TheOverviewLeadsThroughThePiece) {
  timeline().zoomBy(8);
  auto* strip = the<OverviewStrip>("overviewStrip");
  const auto middle = [this] { return seconds(timeline().seen().from + timeline().seen().length / 2); };
  QTest::mouseClick(strip, Qt::LeftButton, {}, QPoint(strip->width() * 3 / 4, 10));
  EXPECT_NEAR(middle(), seconds(score().length) * 0.75, 3);
  QTest::keyClick(strip, Qt::Key_Home);
  EXPECT_EQ(timeline().seen().from, Micros(0));
  QTest::keyClick(strip, Qt::Key_Right);
  EXPECT_GT(timeline().seen().from, Micros(0));
}

TEST_F(ShelfTest, MarksGoOutAndInAsAMidiFile) {
  const auto file = QString::fromStdString((folder_.path() / "round.mid").string());
  window_.scorePage().composing().exportLabels(file);
  const auto beats = instantsOf(score(), LaneKind::Beats);
  oneClip("hold");
  EXPECT_TRUE(instantsOf(score(), LaneKind::Beats).empty());
  window_.scorePage().composing().importLabels(LaneKind::Words, file);
  const auto read = instantsOf(score(), LaneKind::Beats);
  ASSERT_GT(read.size(), 100u);
  EXPECT_NE(std::find_if(read.begin(), read.end(),
                         [&](Micros at) { return std::abs((at - beats[50]).count()) < 2000; }),
            read.end());
  trigger("undo");
  EXPECT_TRUE(instantsOf(score(), LaneKind::Beats).empty());
  std::ofstream((folder_.path() / "bad.mid").string()) << "MThd";
  window_.scorePage().composing().importLabels(LaneKind::Words,
                                               QString::fromStdString((folder_.path() / "bad.mid").string()));
  EXPECT_TRUE(told_.last().contains(QStringLiteral("MIDI")));
}

TEST_F(ShelfTest, AFilmAndARecordingAreMadeAndCancelled) {
  oneClip("ribbon");
  trigger("renderFilm");
  const auto film = folder_.path() / "short.mp4";
  auto* file = the<QLineEdit>("filmFile");
  const auto size = [this] { return the<QLabel>("filmSize")->text(); };
  the<QSpinBox>("filmWidth")->setValue(64);
  the<QSpinBox>("filmHeight")->setValue(48);
  the<QSpinBox>("filmRate")->setValue(2);
  file->setText(QString::fromStdString(film.string()));
  EXPECT_TRUE(size().contains(QStringLiteral("120 pictures"))) << size().toStdString();
  EXPECT_TRUE(size().contains(QStringLiteral("about"))) << size().toStdString();
  press("filmMake");
  ASSERT_TRUE(eventually([&] { return size().startsWith(QStringLiteral("✓")); })) << size().toStdString();
  EXPECT_GT(std::filesystem::file_size(film), 1000u);
  const auto whole = std::filesystem::file_size(film);
  const auto files = [this] {
    return std::distance(std::filesystem::directory_iterator(folder_.path()), {});
  };
  const auto before = files();
  // A large one is cancelled: nothing of it stays, and the one that was there does.
  the<QSpinBox>("filmWidth")->setValue(1920);
  the<QSpinBox>("filmHeight")->setValue(1080);
  the<QSpinBox>("filmRate")->setValue(60);
  press("filmMake");
  EXPECT_TRUE(the<QProgressBar>("filmProgress")->isVisible());
  press("filmCancel");
  ASSERT_TRUE(eventually([&] { return size().startsWith(QStringLiteral("Cancelled")); }));
  EXPECT_EQ(std::filesystem::file_size(film), whole);
  EXPECT_EQ(files(), before);
  const auto recording = folder_.path() / "short.chirec";
  the<QSpinBox>("filmRate")->setValue(20);
  file->setText(QString::fromStdString(recording.string()));
  press("filmMake");
  ASSERT_TRUE(eventually([&] { return size().startsWith(QStringLiteral("✓")); })) << size().toStdString();
  const auto read = RecordingReader::open(recording);
  ASSERT_TRUE(read);
  EXPECT_EQ(read->head().name, "Plain");
  file->setText(QStringLiteral("/nowhere/at/all.mp4"));
  press("filmMake");
  ASSERT_TRUE(eventually([&] { return size().contains(QStringLiteral("cannot")); })) << size().toStdString();
}

}  // namespace
}  // namespace chispa::desk
