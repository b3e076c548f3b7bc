// SPDX-License-Identifier: GPL-3.0-or-later
#include <QActionGroup>
#include <QMenu>
#include <QMenuBar>

#include "desk/frame/mainwindow.h"
#include "desk/parts/format.h"
#include "desk/score/beatmending.h"
#include "desk/score/composing.h"
#include "desk/score/scorepage.h"
#include "desk/score/timelineview.h"

namespace chispa::desk {

namespace {

/// What lays clips on marks.
template <class Add>
void addFilling(QMenu* menu, const Add& add) {
  add(menu, "fillBeats", MainWindow::tr("A clip on every &beat of the section"),
      QKeySequence(MainWindow::tr("Ctrl+B")), [](Composing& c) { c.fill(LaneKind::Beats); });
  add(menu, "fillBars", MainWindow::tr("A clip on every b&ar of the section"),
      QKeySequence(MainWindow::tr("Ctrl+Shift+B")), [](Composing& c) { c.fill(LaneKind::Bars); });
  add(menu, "fillMarks", MainWindow::tr("A clip on every &mark of the section"), {},
      [](Composing& c) { c.fill(LaneKind::Free); });
  add(menu, "fillOnsets", MainWindow::tr("A clip on every low &onset of the section"), {},
      [](Composing& c) { c.fill(LaneKind::LowOnsets); });
  add(menu, "alternateBeats", MainWindow::tr("One stave after the other, a bea&t each"),
      QKeySequence(MainWindow::tr("Ctrl+Alt+B")), [](Composing& c) { c.alternate(LaneKind::Beats); });
  add(menu, "alternateBars", MainWindow::tr("One stave after the other, a ba&r each"), {},
      [](Composing& c) { c.alternate(LaneKind::Bars); });
  add(menu, "repeatClips", MainWindow::tr("Re&peat to the end of the section"),
      QKeySequence(MainWindow::tr("Ctrl+R")), [](Composing& c) { c.repeatToSectionEnd(); });
}

/// What changes the chosen clips in time.
template <class Add>
void addClipActions(QMenu* menu, const Add& add) {
  add(menu, "copyClips", MainWindow::tr("&Copy clips"), QKeySequence(MainWindow::tr("Ctrl+C")),
      [](Composing& c) { c.copy(); });
  add(menu, "cutClips", MainWindow::tr("C&ut clips"), QKeySequence(MainWindow::tr("Ctrl+X")),
      [](Composing& c) { c.cut(); });
  add(menu, "pasteClips", MainWindow::tr("Paste clips at the pla&yhead"),
      QKeySequence(MainWindow::tr("Ctrl+V")), [](Composing& c) { c.paste(); });
  add(menu, "splitClips", MainWindow::tr("&Split at the playhead"), QKeySequence(MainWindow::tr("Ctrl+E")),
      [](Composing& c) { c.split(); });
  add(menu, "stretchClips", MainWindow::tr("Twice as &long"), QKeySequence(MainWindow::tr("Ctrl+>")),
      [](Composing& c) { c.stretch(2); });
  add(menu, "squeezeClips", MainWindow::tr("&Half as long"), QKeySequence(MainWindow::tr("Ctrl+<")),
      [](Composing& c) { c.stretch(0.5); });
  add(menu, "randomiseClips", MainWindow::tr("Ra&ndomise them"), QKeySequence(MainWindow::tr("Ctrl+J")),
      [](Composing& c) { c.randomise(); });
}

/// What changes the light in the chosen clips.
template <class Add>
void addContentActions(QMenu* menu, const Add& add) {
  add(menu, "slipLater", MainWindow::tr("Content offset: later"), QKeySequence(MainWindow::tr("Alt+Right")),
      [](Composing& c) { c.contentOffset(1); });
  add(menu, "slipEarlier", MainWindow::tr("Content offset: earlier"),
      QKeySequence(MainWindow::tr("Alt+Left")), [](Composing& c) { c.contentOffset(-1); });
  add(menu, "turnPicture", MainWindow::tr("Rotate their picture by a &quarter turn"),
      QKeySequence(MainWindow::tr("Ctrl+Alt+D")), [](Composing& c) { c.turnPicture(90); });
  add(menu, "mirrorPicture", MainWindow::tr("Mirror the&ir picture"),
      QKeySequence(MainWindow::tr("Ctrl+Alt+H")),
      [](Composing& c) { c.switchPicture(MainWindow::tr("mirror a picture"), "mirrored"); });
  add(menu, "upsidePicture", MainWindow::tr("Their picture upside do&wn"),
      QKeySequence(MainWindow::tr("Ctrl+Alt+V")),
      [](Composing& c) { c.switchPicture(MainWindow::tr("turn a picture upside down"), "upside_down"); });
  add(menu, "swapEffect", MainWindow::tr("Swap their &effect in the section"), {},
      [](Composing& c) { c.swapEffect(); });
  add(menu, "swapPalette", MainWindow::tr("Swap their palett&e in the section"), {},
      [](Composing& c) { c.swapPalette(); });
}

template <class Add>
void addBlockActions(QMenu* menu, const Add& add) {
  add(menu, "makeBlock", MainWindow::tr("Make a building bloc&k of them"),
      QKeySequence(MainWindow::tr("Ctrl+Shift+K")), [](Composing& c) { c.makeBlock(); });
  add(menu, "dissolveBlock", MainWindow::tr("&Dissolve the block"), {},
      [](Composing& c) { c.dissolveBlock(); });
  add(menu, "openBlock", MainWindow::tr("&Open the block"), QKeySequence(MainWindow::tr("Ctrl+Return")),
      [](Composing& c) { c.openBlock(); });
  add(menu, "closeBlock", MainWindow::tr("Make the selection the bloc&k"),
      QKeySequence(MainWindow::tr("Ctrl+Shift+Return")), [](Composing& c) { c.closeBlock(); });
}

/// What changes the effects on the shelf.
template <class Add>
void addShelfActions(QMenu* menu, ScorePage* score, const Add& add) {
  add(menu, "saveOwnEffect", MainWindow::tr("Keep as an effect of your own"),
      QKeySequence(MainWindow::tr("Ctrl+Shift+E")), [](Composing& c) { c.saveOwn(); });
  add(menu, "nextSetting", MainWindow::tr("Next setting of the shelf's effect"), {},
      [score](Composing&) { score->nextSetting(); });
  add(menu, "favouriteEffect", MainWindow::tr("Make the shelf's effect a favourite, or not"), {},
      [score](Composing&) { score->toggleFavourite(); });
}

/// What takes time out of the score, or adds some.
template <class Add>
void addTimeActions(QMenu* menu, const Add& add) {
  add(menu, "closeGap", MainWindow::tr("Delete the selection's time"),
      QKeySequence(MainWindow::tr("Ctrl+Shift+Del")), [](Composing& c) { c.closeGap(); });
  add(menu, "insertBar", MainWindow::tr("Insert a bar at the playhead"), {},
      [](Composing& c) { c.insertBar(); });
}

template <class Add>
void addMarkActions(QMenu* marks, ScorePage* score, const Add& add) {
  // M is the ruler's key in Plan.
  add(marks, "placeMark", MainWindow::tr("&Mark the playhead"), QKeySequence(Qt::Key_M),
      [score](Composing&) { score->timeline().placeMark(); });
  add(marks, "nextMark", MainWindow::tr("To the &next mark"), QKeySequence(MainWindow::tr("Ctrl+Alt+Right")),
      [](Composing& c) { c.stepMark(true); });
  add(marks, "lastMark", MainWindow::tr("To the mark be&fore"), QKeySequence(MainWindow::tr("Ctrl+Alt+Left")),
      [](Composing& c) { c.stepMark(false); });
  add(marks, "beginSection", MainWindow::tr("A &section begins here"), {},
      [](Composing& c) { c.beginSection(); });
  add(marks, "copySectionLight", MainWindow::tr("&Copy this section's light to all that are like it"),
      QKeySequence(MainWindow::tr("Ctrl+Alt+I")), [](Composing& c) { c.copySectionLight(); });
  add(marks, "takeScoreLight", MainWindow::tr("Take the light of another score…"), QKeySequence(),
      [](Composing& c) { c.takeLight(); });
}

template <class Add>
void addLabelFiles(QMenu* marks, const Add& add) {
  add(marks, "importLabels", MainWindow::tr("&Import labels, words or a MIDI file…"), {},
      [](Composing& c) { c.importLabels(); });
  add(marks, "importPhonemes", MainWindow::tr("Import &phonemes…"), {},
      [](Composing& c) { c.importLabels(LaneKind::Phonemes); });
  add(marks, "exportLabels", MainWindow::tr("E&xport marks…"), {}, [](Composing& c) { c.exportLabels(); });
}

}  // namespace

void MainWindow::makeComposeMenu() {
  QMenu* menu = menuBar()->addMenu(tr("&Compose"));
  Composing* composing = &score_->composing();
  // Elsewhere nobody would see what they do.
  composing_ = new QActionGroup(this);
  composing_->setExclusionPolicy(QActionGroup::ExclusionPolicy::None);
  connect(composing, &Composing::told, this, [this](const QString& words) { tell(words); });
  const auto add = [&](QMenu* to, const char* name, const QString& words, const QKeySequence& keys,
                       auto act) {
    composing_->addAction(
        addAction(to, QLatin1String(name), words, keys, [composing, act] { act(*composing); }));
  };
  // Grouped, so that it stays lower than a small screen.
  addFilling(menu->addMenu(tr("La&y out clips")), add);
  menu->addSeparator();
  addClipActions(menu, add);
  addContentActions(menu->addMenu(tr("Content and pictu&re")), add);
  menu->addSeparator();
  addBlockActions(menu->addMenu(tr("&Blocks")), add);
  addShelfActions(menu->addMenu(tr("&Effects on the shelf")), score_, add);
  makeStaveMenu(menu->addMenu(tr("S&taves")));
  makeBeatsMenu(menu->addMenu(tr("Be&ats and bars")));
  QMenu* marks = menu->addMenu(tr("&Marks and sections"));
  addMarkActions(marks, score_, add);
  marks->addSeparator();
  addLabelFiles(marks, add);
  menu->addSeparator();
  addTimeActions(menu, add);
  menu->addSeparator();
  add(menu, "findClips", tr("&Find clips and marks…"), QKeySequence::Find,
      [this](Composing&) { score_->beginSearch(); });
  composing_->addAction(addAction(menu, QStringLiteral("renderFilm"), tr("Film or recording of this score…"),
                                  QKeySequence(tr("Ctrl+Alt+R")), [this] { score_->openFilmDialog(); }));
  add(menu, "playPart", tr("Play only th&is part"), QKeySequence(tr("Ctrl+P")),
      [](Composing& c) { c.togglePart(); });
  makePlayingActions(menu);
}

void MainWindow::makePlayingActions(QMenu* menu) {
  QMenu* speed = menu->addMenu(tr("Spee&d"));
  auto* speeds = new QActionGroup(this);
  for (const auto& [name, words, rate] :
       {std::tuple{"speedFull", tr("As it is"), 1.0},
        std::tuple{"speedHalf", tr("Half as fast, at the same pitch"), 0.5},
        std::tuple{"speedQuarter", tr("A quarter, at the same pitch"), 0.25},
        std::tuple{"speedTwice", tr("Twice as fast, at the same pitch"), 2.0},
        std::tuple{"speedFour", tr("Four times as fast, at the same pitch"), 4.0}}) {
    QAction* action = speeds->addAction(addAction(speed, QLatin1String(name), words, {},
                                                  [this, rate = rate] { session_.stage.setRate(rate); }));
    action->setCheckable(true);
    action->setChecked(rate == session_.stage.rate());
  }
  QAction* countIn = addAction(menu, "countIn", tr("Count i&n with a bar of clicks"), {},
                               [this] { session_.stage.setCountIn(!session_.stage.countsIn()); });
  countIn->setCheckable(true);
  QAction* scrubbing = addAction(menu, "hearScrubbing", tr("H&ear the music while scrubbing"), {}, [this] {
    session_.stage.setHearsScrubbing(!session_.stage.hearsScrubbing());
  });
  scrubbing->setToolTip(tr("While nothing plays, dragging the ruler sounds the music there"));
  scrubbing->setCheckable(true);
  scrubbing->setChecked(session_.stage.hearsScrubbing());
}

void MainWindow::makeBeatsMenu(QMenu* menu) {
  BeatMending* mending = &score_->beatMending();
  connect(mending, &BeatMending::told, this, [this](const QString& words) { tell(words); });
  const auto add = [&](const char* name, const QString& words, const QKeySequence& keys, const QString& help,
                       auto act) {
    QAction* action = addAction(menu, QLatin1String(name), words, keys, [mending, act] { act(*mending); });
    if (!help.isEmpty()) action->setToolTip(help);
    composing_->addAction(action);
  };
  add("tapBeat", tr("&Tap a beat (while it plays)"), QKeySequence(Qt::Key_T), {},
      [](BeatMending& m) { m.tap(); });
  add("settleBeats", tr("The tapped bar &settles the rest"), QKeySequence(tr("Shift+T")),
      tr("Tap each beat of a bar and the first of the next; all others are found anew to go with them"),
      [](BeatMending& m) { m.settle(); });
  add("setDownBeat", tr("A bar &begins here"), {}, {}, [](BeatMending& m) { m.setDownBeat(); });
  // One key mends from the playhead on, so that a stretch is put right while it is heard.
  const auto count = [&](const char* name, const QString& words, Qt::Key key, BeatLevel level) {
    add(name, words, QKeySequence(key), tr("From the beat at the playhead on; what lies before it stays"),
        [level](BeatMending& m) { m.count(level); });
  };
  count("halveBeats", tr("From here on: &half as many beats"), Qt::Key_1, BeatLevel::Half);
  count("doubleBeats", tr("From here on: t&wice as many beats"), Qt::Key_2, BeatLevel::Twice);
  count("threeInABar", tr("From here on: t&hree in a bar"), Qt::Key_3, BeatLevel::ThreeInABar);
  count("fourInABar", tr("From here on: &four in a bar"), Qt::Key_4, BeatLevel::FourInABar);
  count("halfBeatLater", tr("From here on: half a &beat later"), Qt::Key_5, BeatLevel::HalfBeatLater);
  count("thirdLater", tr("From here on: a th&ird of a beat later"), Qt::Key_6, BeatLevel::ThirdLater);
  count("thirdEarlier", tr("From here on: a thir&d of a beat earlier"), Qt::Key_7, BeatLevel::ThirdEarlier);
  add("beatsLater", tr("Beats 10 ms &later"), {}, {}, [](BeatMending& m) { m.shift(Micros(10'000)); });
  add("beatsEarlier", tr("Beats 10 ms &earlier"), {}, {}, [](BeatMending& m) { m.shift(Micros(-10'000)); });
  add("gridFromMarks", tr("&Regular beats from two marks, a bar apart"), {}, {},
      [](BeatMending& m) { m.gridFromMarks(); });
  add("chooseReading", tr("&Other readings of the beats…"), QKeySequence(tr("Ctrl+Shift+T")),
      tr("The same music counted other ways, each to be heard as clicks"),
      [this](BeatMending& m) { m.chooseReading(this); });
  QAction* clicks = addAction(menu, QStringLiteral("hearBeats"), tr("Hear clic&ks on the beats"), {},
                              [this] { session_.stage.setHearsBeats(!session_.stage.hearsBeats()); });
  clicks->setCheckable(true);
  clicks->setToolTip(tr("A click on each beat of the score while it plays, a higher one where a bar begins"));
  connect(&session_.stage, &Stage::hearsBeatsChanged, clicks, &QAction::setChecked);
  composing_->addAction(clicks);
  add("findBeats", tr("&Find beats, bars and sections anew"), {}, {}, [](BeatMending& m) { m.findAgain(); });
  add("findOnsets", tr("Find &onsets, low, middle and high"), {}, {}, [](BeatMending& m) { m.findOnsets(); });
  add("findChords", tr("Find &chords and the key"), {},
      tr("Puts the chords that are heard into a lane of their own, and tells the key"),
      [](BeatMending& m) { m.findChords(); });
}

void MainWindow::makeStaveMenu(QMenu* menu) {
  Composing* composing = &score_->composing();
  const auto add = [&](const char* name, const QString& words, const QKeySequence& keys, auto act) {
    composing_->addAction(
        addAction(menu, QLatin1String(name), words, keys, [composing, act] { act(*composing); }));
  };
  add("staveUp", tr("Move the stave &up"), QKeySequence(tr("Alt+Up")),
      [](Composing& c) { c.moveStave(true); });
  add("staveDown", tr("Move the stave &down"), QKeySequence(tr("Alt+Down")),
      [](Composing& c) { c.moveStave(false); });
  QMenu* more = menu->addMenu(tr("&Add a stave for"));
  more->setObjectName(QStringLiteral("addStaveMenu"));
  connect(more, &QMenu::aboutToShow, this, [this, more, composing] {
    more->clear();
    const std::vector<ZoneId> zones = composing->zonesWithoutStave();
    for (const ZoneId zone : zones)
      more->addAction(text(chispa::find(session_.show().zones, zone)->name), this,
                      [composing, zone] { composing->addStaves({zone}); });
    if (zones.empty()) more->addAction(tr("Every zone has one"))->setEnabled(false);
  });
  add("addAllStaves", tr("Add staves for a&ll zones that have none"), {},
      [](Composing& c) { c.addStaves(c.zonesWithoutStave()); });
  add("removeStave", tr("&Remove the stave and its clips"), {}, [](Composing& c) { c.removeStave(); });
  menu->addSeparator();
  add("newFolder", tr("A new &folder for it"), QKeySequence(tr("Ctrl+Alt+F")),
      [](Composing& c) { c.newFolder(); });
  QMenu* into = menu->addMenu(tr("Move &into the folder"));
  into->setObjectName(QStringLiteral("joinFolderMenu"));
  connect(into, &QMenu::aboutToShow, this, [this, into, composing] {
    into->clear();
    const Score* score = session_.stage.score();
    for (std::size_t i = 0; score && i < score->folders.size(); ++i)
      into->addAction(text(score->folders[i].name), this,
                      [composing, name = text(score->folders[i].name)] { composing->joinFolder(name); });
    if (into->isEmpty()) into->addAction(tr("There is none yet"))->setEnabled(false);
  });
  add("leaveFolder", tr("Move &out of its folder"), {}, [](Composing& c) { c.leaveFolder(); });
  add("renameFolder", tr("&Rename its folder"), {}, [](Composing& c) { c.renameFolder(); });
  connect(&score_->timeline(), &TimelineView::staveMenuAsked, menu, [menu](QPoint at) { menu->popup(at); });
}

}  // namespace chispa::desk
