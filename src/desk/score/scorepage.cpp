// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/score/scorepage.h"

#include <QComboBox>
#include <QFileDialog>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>
#include <QSplitter>
#include <QVBoxLayout>

#include "core/base/relativepath.h"
#include "core/check/scoresearch.h"
#include "core/edit/markedits.h"
#include "core/edit/scoreedits.h"
#include "core/edit/sectionlight.h"
#include "desk/glow/glowview.h"
#include "desk/parts/format.h"
#include "desk/parts/icon.h"
#include "desk/parts/named.h"
#include "desk/parts/theme.h"
#include "desk/score/beatmending.h"
#include "desk/score/clippictures.h"
#include "desk/score/composing.h"
#include "desk/score/effectshelf.h"
#include "desk/score/filmdialog.h"
#include "desk/score/overviewstrip.h"
#include "desk/score/silentscoredialog.h"
#include "desk/score/timelineview.h"

namespace chispa::desk {
ScorePage::ScorePage(const Session& session, QWidget* parent)
    : QWidget(parent),
      session_(session),
      pictures_(new ClipPictures(session, this)),
      timeline_(new TimelineView(session, *pictures_)),
      composing_(new Composing(session, *timeline_, this)),
      mending_(new BeatMending(session, this)) {
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(0, 0, 0, 0);
  row->setSpacing(0);
  row->addWidget(makeShelf());
  auto* column = new QVBoxLayout;
  column->setSpacing(0);
  column->addWidget(makeTransport());
  auto* split = new QSplitter(Qt::Vertical);
  split->addWidget(new GlowView(session.stage));
  split->addWidget(timeline_);
  split->setStretchFactor(0, 1);
  split->setStretchFactor(1, 2);
  split->setSizes({210, 480});
  auto* whole = new QHBoxLayout;
  whole->setSpacing(8);
  whole->addWidget(new OverviewStrip(session, *timeline_), 1);
  addSearch(*whole);
  column->addLayout(whole);
  column->addWidget(split, 1);
  row->addLayout(column, 1);
  connect(timeline_, &TimelineView::zoneChosen, shelf_, &EffectShelf::setZone);
  connect(timeline_, &TimelineView::musicDropped, this, [this](const QString& file) { newScore(file); });
  connect(shelf_, &EffectShelf::effectChosen, timeline_, &TimelineView::setChosenEffect);
  connect(shelf_, &EffectShelf::told, composing_, &Composing::told);
  connect(composing_, &Composing::offered, shelf_, &EffectShelf::choose);
  connect(&session_.document, &Document::showChanged, this, [this](const Show& before) {
    if (!sameItems(before.palettes, session_.show().palettes)) fillPalettes();
    fillScores();
  });
  connect(&session_.document, &Document::opened, this, [this] {
    fillPalettes();
    fillScores();
  });
  connect(&session_.stage, &Stage::scoreChanged, this, &ScorePage::fillScores);
  connect(&session_.selection, &Selection::changed, this, [this] {
    if (const auto* id = std::get_if<PaletteId>(&session_.selection.now()))
      for (int i = 0; i < palettes_->count(); ++i)
        if (palettes_->item(i)->data(Qt::UserRole).toUInt() == id->value) palettes_->setCurrentRow(i);
  });
  connect(&session_.stage, &Stage::ticked, this, &ScorePage::showPosition);
  connect(&session_.stage, &Stage::playingChanged, this, &ScorePage::refreshIcons);
  connect(&session_.stage, &Stage::audioChanged, this, &ScorePage::completeScore);
  fillPalettes();
  fillScores();
}

QWidget* ScorePage::makeTransport() {
  auto* bar = new QWidget;
  bar->setObjectName(QStringLiteral("toolRow"));
  auto* row = new QHBoxLayout(bar);
  row->setContentsMargins(8, 6, 12, 6);
  play_ = new QPushButton(icon("play"), tr("Play"));
  play_->setObjectName(QStringLiteral("playButton"));
  play_->setToolTip(tr("Plays and pauses (Space)"));
  connect(play_, &QPushButton::clicked, this, [this] { session_.stage.togglePlaying(); });
  row->addWidget(play_);
  loop_ = new QPushButton(icon("loop"), tr("Loop"));
  loop_->setObjectName(QStringLiteral("loopButton"));
  loop_->setCheckable(true);
  loop_->setToolTip(tr("Begins again at the end"));
  connect(loop_, &QPushButton::toggled, this, [this](bool on) { session_.stage.setLooping(on); });
  connect(&session_.stage, &Stage::loopingChanged, this,
          [this] { loop_->setChecked(session_.stage.isLooping()); });
  row->addWidget(loop_);
  auto* mark = new QPushButton(tr("Mark"));
  mark->setObjectName(QStringLiteral("markButton"));
  mark->setToolTip(tr("Puts a mark at the playhead, while playing too (M)"));
  connect(mark, &QPushButton::clicked, this, [this] { timeline_->placeMark(); });
  row->addWidget(mark);
  scores_ = new QComboBox;
  named(scores_, "scoreChoice", tr("Score"), tr("The score that is open"));
  connect(scores_, &QComboBox::activated, this,
          [this](int index) { session_.stage.openScore(ScoreId{scores_->itemData(index).toUInt()}); });
  scores_->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
  scores_->setMinimumContentsLength(11);
  row->addWidget(scores_);
  auto* add = new QPushButton(tr("New score…"));
  add->setObjectName(QStringLiteral("newScore"));
  add->setToolTip(tr("From a piece of music; its bars and beats are found"));
  connect(add, &QPushButton::clicked, this, [this] { newScore(); });
  row->addWidget(add);
  row->addStretch();
  for (const auto& [name, words, tip, factor] :
       {std::tuple{"zoomOut", tr("−"), tr("Shows more of the score (−)"), 0.7},
        std::tuple{"zoomIn", tr("+"), tr("Shows less, larger (+)"), 1.4}}) {
    auto* zoom = new QPushButton(words);
    zoom->setObjectName(QLatin1String(name));
    zoom->setToolTip(tip);
    zoom->setAccessibleName(tip);
    connect(zoom, &QPushButton::clicked, this, [this, factor = factor] { timeline_->zoomBy(factor); });
    row->addWidget(zoom);
  }
  position_ = new QLabel;
  position_->setObjectName(QStringLiteral("positionLabel"));
  position_->setTextFormat(Qt::RichText);
  position_->setMinimumWidth(textWidth(19));
  position_->setAlignment(Qt::AlignRight | Qt::AlignVCenter);
  row->addWidget(position_);
  return bar;
}

void ScorePage::addSearch(QHBoxLayout& row) {
  search_ = new QLineEdit;
  named(search_, "scoreSearch", tr("Find clips and marks"),
        tr("Effects, zones, palettes, words and marks with these letters are found (Ctrl+F); Enter goes from "
           "one to the next"));
  search_->setPlaceholderText(tr("Find"));
  search_->setClearButtonEnabled(true);
  search_->setFixedWidth(textWidth(20));
  connect(search_, &QLineEdit::textChanged, this, [this] { match_ = 0; });
  connect(search_, &QLineEdit::returnPressed, this, &ScorePage::search);
  row.addWidget(search_);
  row.addSpacing(8);
}

void ScorePage::beginSearch() {
  search_->setFocus();
  search_->selectAll();
}

void ScorePage::search() {
  const Score* score = session_.stage.score();
  if (!score || search_->text().isEmpty()) return;
  const ScoreMatches found = searchScore(session_.show(), *score, search_->text().toStdString());
  if (found.clips.empty() && found.marks.empty())
    return emit composing_->told(tr("Nothing in this score has “%1” in it.").arg(search_->text()));
  // First the clips, one after the other, then the marks.
  const std::size_t which = match_++ % (found.clips.size() + found.marks.size());
  if (which < found.clips.size()) {
    session_.selection.select(ClipIds{found.clips[which]});
    timeline_->reveal(found.clips[which]);
    return;
  }
  const Mark& mark = found.marks[which - found.clips.size()];
  session_.stage.seek(mark.at);
  timeline_->reveal(mark.at);
}

void ScorePage::openFilmDialog() {
  if (!session_.stage.score()) return emit composing_->told(tr("Open a score first."));
  auto* dialog = new FilmDialog(session_, this);
  dialog->setAttribute(Qt::WA_DeleteOnClose);
  dialog->show();
}

void ScorePage::nextSetting() {
  shelf_->nextSetting();
}

void ScorePage::toggleFavourite() {
  shelf_->toggleFavourite();
}

void ScorePage::refreshIcons() {
  play_->setIcon(icon(session_.stage.isPlaying() ? "pause" : "play"));
  play_->setText(session_.stage.isPlaying() ? tr("Pause") : tr("Play"));
  loop_->setIcon(icon("loop"));
}

void ScorePage::fillScores() {
  const QSignalBlocker quiet(scores_);
  scores_->clear();
  for (const auto& score : session_.show().scores) scores_->addItem(text(score->name), score->id.value);
  scores_->setCurrentIndex(session_.stage.score() ? scores_->findData(session_.stage.score()->id.value) : -1);
  scores_->setVisible(scores_->count() > 0);
}

void ScorePage::showPosition() {
  const Score* score = session_.stage.score();
  if (!isVisible()) return;
  if (!score) return position_->clear();
  const Micros at = session_.stage.position();
  const auto compiled = session_.stage.compiled();
  const CompiledScore* grid = compiled ? compiled->scoreOf(score->id) : nullptr;
  const double bar = grid ? grid->grid.barAt(at) : 0;
  const QString where = bar < 0 || !grid ? QStringLiteral("—")
                                         : tr("bar %1.%2")
                                               .arg(static_cast<int>(bar + 1e-6) + 1)
                                               .arg(static_cast<int>(grid->grid.beatInBarAt(at) + 1e-6) + 1);
  position_->setText(QStringLiteral("<b style='font-size:17px'>%1</b> &nbsp; %2").arg(where, timeText(at)));
}

void ScorePage::newScore(QString audio) {
  if (audio.isEmpty())
    audio = QFileDialog::getOpenFileName(this, tr("Music for the new score"), {},
                                         tr("Music (*.mp3 *.m4a *.aac *.ogg *.flac *.wav);;All files (*)"));
  if (audio.isEmpty()) return;
  const std::filesystem::path path = audio.toStdString();
  const std::string name = relativeName(session_.document.path(), path);
  ScoreId id;
  // Its length is not known before the music has been read; completeScore() puts it right.
  session_.edit(tr("new score"),
                [&](Show& show) { id = addScore(show, path.stem().string(), name, Micros(0)); });
  session_.stage.openScore(id);
  completeScore();
}

void ScorePage::newSilentScore() {
  const auto wish = askSilentScore(session_.show(), this);
  if (!wish) return;
  ScoreId id;
  session_.edit(tr("new score"), [&](Show& show) {
    id = addSilentScore(show, wish->name.toStdString(), wish->beatsPerMinute, wish->beatsPerBar, wish->bars);
    if (wish->like) takeLightOf(show, id, wish->like);
  });
  session_.stage.openScore(id);
  timeline_->zoomToAll();
}

void ScorePage::chooseEffect(const QString& key) {
  shelf_->choose(key);
  shelf_->setFocus();
}

void ScorePage::completeScore() {
  const Score* score = session_.stage.score();
  if (!score || score->length.count() > 0) return;
  // An edit now would forget what was undone.
  if (session_.document.canRedo()) return;
  if (const auto audio = session_.stage.audio())
    addFoundBeats(*score, *audio);
  else if (!score->audio.empty() && !session_.stage.audioTrouble(score->audio).isEmpty())
    goOnSilently(*score);
}

void ScorePage::addFoundBeats(const Score& score, const AnalysedAudio& audio) {
  session_.document.complete(tr("new score"), [&, id = score.id](Show& show) {
    changeItem(show.scores, id, [&](Score& filled) { filled.length = audio.clip->length(); });
    putBeats(show, id, audio);
  });
  timeline_->zoomToAll();
  mending_->tellUnsure(audio.beats);
}

/// Music that cannot be read leaves a score that can be worked on; it keeps the name of the music, which may
/// come back.
void ScorePage::goOnSilently(const Score& score) {
  constexpr int kBars = 64;
  const QString why = session_.stage.audioTrouble(score.audio);
  session_.document.complete(tr("new score"),
                             [id = score.id](Show& show) { setSilentLength(show, id, 120, 4, kBars); });
  timeline_->zoomToAll();
  emit failed(
      tr("%1\nThe score plays silently: %2 bars of four beats at 120 bpm. Its length and beats can be "
         "changed.")
          .arg(why)
          .arg(kBars));
}

}  // namespace chispa::desk
