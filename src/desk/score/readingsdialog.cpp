// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/score/readingsdialog.h"

#include <QDialogButtonBox>
#include <QLabel>
#include <QListWidget>
#include <QPushButton>
#include <QVBoxLayout>

#include "core/edit/markedits.h"
#include "desk/score/beatmending.h"

namespace chispa::desk {
namespace {

/// How likely a reading is, in words: what is a little behind in each second is far behind over a piece.
QString likelihoodWords(double behind) {
  if (behind < 0.02) return ReadingsDialog::tr("as likely");
  if (behind < 0.25) return ReadingsDialog::tr("likely");
  if (behind < 1) return ReadingsDialog::tr("possible");
  return ReadingsDialog::tr("unlikely");
}

}  // namespace

ReadingsDialog::ReadingsDialog(const Session& session, const AnalysedAudio& audio, QWidget* parent)
    : QDialog(parent), session_(session), before_(session.show()), heardClicks_(session.stage.hearsBeats()) {
  setWindowTitle(tr("Other readings of the beats"));
  auto* column = new QVBoxLayout(this);
  auto* words =
      new QLabel(tr("The same music, counted other ways; the likeliest first. Choose one and listen: clicks "
                    "fall on its beats, higher "
                    "ones on the first of each bar."));
  words->setWordWrap(true);
  column->addWidget(words);
  list_ = new QListWidget;
  list_->setObjectName(QStringLiteral("readings"));
  list_->setAccessibleName(tr("Readings"));
  list_->setToolTip(tr("Each is in the score as soon as it is chosen"));
  column->addWidget(list_, 1);
  auto* buttons = new QDialogButtonBox(QDialogButtonBox::Ok | QDialogButtonBox::Cancel);
  QPushButton* play = buttons->addButton(tr("&Play or pause"), QDialogButtonBox::ActionRole);
  play->setObjectName(QStringLiteral("playReading"));
  play->setToolTip(tr("Plays from the playhead, with clicks on the beats"));
  buttons->button(QDialogButtonBox::Ok)->setText(tr("&Take this one"));
  buttons->button(QDialogButtonBox::Ok)->setToolTip(tr("Keeps the chosen reading; it can be undone"));
  buttons->button(QDialogButtonBox::Cancel)->setToolTip(tr("Puts back the beats that were there"));
  column->addWidget(buttons);
  connect(buttons, &QDialogButtonBox::accepted, this, &QDialog::accept);
  connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::reject);
  connect(play, &QPushButton::clicked, this, [this] { session_.stage.togglePlaying(); });
  list(audio);
  session_.stage.setHearsBeats(true);
  resize(440, 380);
}

void ReadingsDialog::list(const AnalysedAudio& audio) {
  const Score& score = *session_.stage.score();
  const BeatMarks now = beatMarksOf(score);
  readings_.push_back(now);
  list_->addItem(tr("As it is now"));
  BeatMarks heard = now;
  for (auto* marks : {&heard.beats, &heard.bars})
    for (Micros& at : *marks) at -= score.audioStart;
  for (const BeatReading& reading : otherReadings(audio.chances, heard)) {
    BeatMarks marks = reading.marks;
    for (auto* instants : {&marks.beats, &marks.bars})
      for (Micros& at : *instants) at += score.audioStart;
    readings_.push_back(std::move(marks));
    list_->addItem(tr("%1 (%2)", "a reading, how likely it is")
                       .arg(wordsOf(reading.level), likelihoodWords(reading.behind)));
  }
  list_->setCurrentRow(0);
  connect(list_, &QListWidget::currentRowChanged, this, &ReadingsDialog::show);
}

void ReadingsDialog::show(int row) {
  const Score* score = session_.stage.score();
  if (!score || row < 0) return;
  const auto put = [&, id = score->id](Show& show) {
    putReading(show, id, readings_[static_cast<std::size_t>(row)]);
  };
  // All that is tried is one step of undo.
  if (session_.show() == before_)
    session_.edit(tr("another reading of the beats"), put);
  else
    session_.document.complete(tr("another reading of the beats"), put);
}

void ReadingsDialog::done(int result) {
  session_.stage.setHearsBeats(heardClicks_);
  if (result != Accepted && !(session_.show() == before_)) session_.document.undo();
  QDialog::done(result);
}

}  // namespace chispa::desk
