// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/score/filmdialog.h"

#include <QCheckBox>
#include <QComboBox>
#include <QFileDialog>
#include <QFormLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QSpinBox>

#include "core/edit/clipedits.h"
#include "core/lightdata/lightdata.h"
#include "core/recording/scorerecording.h"
#include "desk/parts/format.h"
#include "desk/parts/language.h"
#include "desk/parts/named.h"
#include "desk/parts/theme.h"
#include "desk/parts/workbar.h"
#include "desk/session/background.h"
#include "desk/session/pools.h"

namespace chispa::desk {
namespace {

enum Part { Whole, Section, Playing };

}  // namespace

FilmDialog::FilmDialog(const Session& session, QWidget* parent)
    : QDialog(parent),
      session_(session),
      file_(new QLineEdit),
      part_(new QComboBox),
      view_(new QComboBox),
      asStrips_(new QCheckBox),
      width_(new QSpinBox),
      height_(new QSpinBox),
      rate_(new QSpinBox),
      sound_(new QCheckBox),
      size_(new QLabel),
      progress_(new WorkBar),
      make_(new QPushButton),
      cancel_(new QPushButton) {
  setObjectName(QStringLiteral("filmDialog"));
  setWindowTitle(tr("Film or recording of this score"));
  makeRows();
  for (QSpinBox* box : {width_, height_, rate_})
    connect(box, &QSpinBox::valueChanged, this, &FilmDialog::tellSize);
  for (QComboBox* box : {part_, view_})
    connect(box, &QComboBox::currentIndexChanged, this, &FilmDialog::tellSize);
  connect(file_, &QLineEdit::textChanged, this, &FilmDialog::tellSize);
  connect(make_, &QPushButton::clicked, this, &FilmDialog::begin);
  connect(cancel_, &QPushButton::clicked, this, [this] {
    if (progress_->isAtWork())
      progress_->cancel();
    else
      close();
  });
  tellSize();
}

void FilmDialog::makeRows() {
  auto* rows = new QFormLayout(this);
  named(file_, "filmFile", tr("File"),
        tr("Its ending chooses the kind: mp4, webm, avi, gif, webp, apng; a name like light-%04d.png gives a "
           "picture each; chirec a recording of all universes; csv, rgb and png every frame as plain data"));
  auto* choose = new QPushButton(tr("Choose…"));
  named(choose, "filmChoose", tr("Choose the file"), tr("Where it goes"));
  connect(choose, &QPushButton::clicked, this, &FilmDialog::chooseFile);
  auto* fileRow = new QHBoxLayout;
  fileRow->addWidget(file_, 1);
  fileRow->addWidget(choose);
  rows->addRow(tr("File"), fileRow);
  part_->addItems(
      {tr("the whole score"), tr("the section at the playhead"), tr("the part that plays alone")});
  named(part_, "filmPart", tr("Part"), tr("What of the score is in it"));
  rows->addRow(tr("Of"), part_);
  view_->addItems({tr("the light, as seen from the front"), tr("unrolled: one line per fixture")});
  named(view_, "filmView", tr("View"), tr("What the pictures show"));
  rows->addRow(tr("Shows"), view_);
  asStrips_->setText(tr("as the strips show it"));
  named(asStrips_, "filmAsStrips", tr("As the strips show it"),
        tr("With their chips, white, response and power budget, in place of the light as it is meant"));
  rows->addRow({}, asStrips_);
  auto* shape = new QHBoxLayout;
  const auto number = [&](QSpinBox* box, const char* name, const QString& words, int low, int high, int step,
                          int value, const QString& unit) {
    box->setRange(low, high);
    box->setSingleStep(step);
    box->setValue(value);
    box->setSuffix(unit);
    named(box, name, words, words);
    shape->addWidget(box);
  };
  number(width_, "filmWidth", tr("Width"), 2, 7680, 2, 1280, tr(" wide"));
  number(height_, "filmHeight", tr("Height"), 2, 4320, 2, 720, tr(" high"));
  number(rate_, "filmRate", tr("Frames per second"), 1, 240, 1, 30, tr(" per second"));
  rows->addRow(tr("Pictures"), shape);
  sound_->setText(tr("with the score's sound"));
  sound_->setChecked(true);
  named(sound_, "filmSound", tr("Sound"), tr("MP4, WebM and AVI can have it"));
  rows->addRow({}, sound_);
  size_->setObjectName(QStringLiteral("filmSize"));
  size_->setWordWrap(true);
  rows->addRow({}, size_);
  progress_->setVisible(false);
  named(progress_, "filmProgress", tr("Progress"), tr("How much of it is made"));
  rows->addRow(progress_);
  auto* buttons = new QHBoxLayout;
  buttons->addStretch();
  make_->setText(tr("Make it"));
  make_->setDefault(true);
  named(make_, "filmMake", tr("Make it"), tr("Begins; the window can be used meanwhile"));
  cancel_->setText(tr("Close"));
  named(cancel_, "filmCancel", tr("Cancel"), tr("Cancels, or closes this"));
  buttons->addWidget(make_);
  buttons->addWidget(cancel_);
  rows->addRow(buttons);
  setMinimumWidth(textWidth(64));
}

void FilmDialog::chooseFile() {
  const QString file =
      QFileDialog::getSaveFileName(this, tr("Film or recording"), file_->text(),
                                   tr("Films (*.mp4 *.webm *.avi *.gif *.webp *.apng);;Recordings "
                                      "(*.chirec);;Plain data (*.csv *.rgb *.png);;All files (*)"));
  if (!file.isEmpty()) file_->setText(file);
}

bool FilmDialog::isRecording() const {
  return file_->text().endsWith(QLatin1String(".chirec"));
}

TimeSpan FilmDialog::wantedSpan() const {
  const Score* score = session_.stage.score();
  if (!score) return {};
  if (part_->currentIndex() == Section) return sectionAt(*score, session_.stage.position());
  if (part_->currentIndex() == Playing && session_.stage.part()) return *session_.stage.part();
  return {Micros(0), score->length};
}

FilmOrder FilmDialog::order() const {
  FilmOrder order{wantedSpan(),
                  {width_->value() / 2 * 2, height_->value() / 2 * 2, rate_->value()},
                  view_->currentIndex() == 1,
                  asStrips_->isChecked()};
  if (sound_->isChecked() && session_.stage.audio()) order.sound = session_.stage.audio()->clip;
  return order;
}

void FilmDialog::tellSize() {
  const FilmOrder wanted = order();
  const std::filesystem::path path = file_->text().toStdString();
  for (QWidget* field : std::initializer_list<QWidget*>{view_, asStrips_, width_, height_, sound_})
    field->setEnabled(!isRecording() && !isLightData(path));
  sound_->setEnabled(filmHasSound(path));
  QString words = tr("%1 of the score, %2")
                      .arg(timeText(wanted.span.length),
                           counted(wanted.pictures(), tr("one picture"), tr("%1 pictures")));
  if (const auto bytes = expectedBytes(path, wanted.shape, wanted.pictures()); bytes && !isRecording())
    words += tr("; about %1 MB").arg(static_cast<double>(*bytes) / 1e6, 0, 'f', 1);
  if (isRecording()) {
    const auto compiled = session_.stage.compiled();
    const double raw = compiled ? static_cast<double>(compiled->packer->bufferSize()) *
                                      static_cast<double>(wanted.pictures()) / 1e6
                                : 0;
    words += tr("; at most %1 MB before packing").arg(raw, 0, 'f', 1);
  }
  size_->setText(words);
  make_->setEnabled(!progress_->isAtWork() && !file_->text().trimmed().isEmpty() && wanted.pictures() > 0);
}

void FilmDialog::begin() {
  const Score* score = session_.stage.score();
  const auto compiled = session_.stage.compiled();
  if (!score || !compiled) return;
  const Progress progress = progress_->begin();
  make_->setEnabled(false);
  cancel_->setText(tr("Cancel"));
  const std::filesystem::path path = file_->text().trimmed().toStdString();
  runThen(
      pools::exporting(), this,
      [show = session_.show(), compiled, score = *score, order = order(), path, progress,
       isRecording = isRecording()]() -> Result<bool> {
        if (isRecording)
          return recordScore(show, *compiled, score, {order.span, order.shape.framesPerSecond}, path,
                             progress);
        if (isLightData(path))
          return writeLightData(show, *compiled, score, {order.span, order.shape.framesPerSecond}, path,
                                progress);
        return makeFilm(show, *compiled, score, order, path, progress);
      },
      [this](const Result<bool>& made) { end(made); });
}

void FilmDialog::end(const Result<bool>& made) {
  progress_->end();
  cancel_->setText(tr("Close"));
  tellSize();
  if (!made) return size_->setText(said(made.failure()));
  const QFileInfo file(file_->text().trimmed());
  size_->setText(!*made          ? tr("Cancelled; nothing was kept of a film.")
                 : file.exists() ? tr("✓ Made: %1, %2 MB.")
                                       .arg(file.fileName())
                                       .arg(static_cast<double>(file.size()) / 1e6, 0, 'f', 2)
                                 : tr("✓ Made."));
}

}  // namespace chispa::desk
