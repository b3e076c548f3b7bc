// SPDX-License-Identifier: GPL-3.0-or-later
// Marks from files and into files.
#include <QFileDialog>

#include "core/edit/markedits.h"
#include "core/files/labelfile.h"
#include "core/files/midifile.h"
#include "core/files/showfile.h"
#include "desk/parts/format.h"
#include "desk/parts/language.h"
#include "desk/score/composing.h"
#include "desk/score/timelineview.h"

namespace chispa::desk {
namespace {

bool isMidi(const QString& file) {
  return file.endsWith(QLatin1String(".mid"), Qt::CaseInsensitive) ||
         file.endsWith(QLatin1String(".midi"), Qt::CaseInsensitive);
}

}  // namespace

void Composing::importLabels(LaneKind kind, QString file) {
  const Score* score = session_.stage.score();
  if (!score) return emit told(tr("Open a score first."));
  if (file.isEmpty())
    file = QFileDialog::getOpenFileName(
        &timeline_, tr("Labels"), {},
        tr("Labels and MIDI files (*.txt *.tsv *.vtt *.lrc *.mid *.midi);;All files (*)"));
  if (file.isEmpty()) return;
  if (isMidi(file)) return importMidi(file);
  auto marks = readLabels(file.toStdString());
  if (!marks) return emit told(said(marks.failure()));
  const QString lane = kind == LaneKind::Phonemes ? tr("Phonemes") : tr("Words");
  change(tr("import labels"),
         [&](Show& show, ScoreId id) { putMarks(show, id, kind, lane.toStdString(), *marks); });
}

void Composing::importMidi(const QString& file) {
  const auto read = readMidi(file.toStdString());
  if (!read) return emit told(said(read.failure()));
  change(tr("import a MIDI file"), [&](Show& show, ScoreId id) {
    const auto add = [&](LaneKind kind, const QString& name, const std::vector<Mark>& marks) {
      if (!marks.empty()) putMarks(show, id, kind, name.toStdString(), marks);
    };
    add(LaneKind::Beats, tr("Beats"), read->beats);
    add(LaneKind::Bars, tr("Bars"), read->bars);
    add(LaneKind::Notes, tr("Notes"), read->notes);
    add(LaneKind::Words, tr("Words"), read->words);
    add(LaneKind::Sections, tr("Sections"), read->markers);
  });
}

void Composing::exportMidi(const QString& file) {
  const Outcome written = writeMidi(file.toStdString(), *session_.stage.score());
  if (!written) emit told(said(written.failure()));
}

void Composing::exportLabels(QString file) {
  const Score* score = session_.stage.score();
  if (score && isMidi(file)) return exportMidi(file);
  const MarkLane* lane = nullptr;
  for (const LaneKind kind : {LaneKind::Words, LaneKind::Free, LaneKind::Sections, LaneKind::Beats})
    if (score && !lane) lane = laneOf(*score, kind);
  if (!lane) return emit told(tr("There are no marks to export."));
  if (file.isEmpty())
    file = QFileDialog::getSaveFileName(
        &timeline_, tr("Export the marks “%1”").arg(text(lane->name)), QStringLiteral("marks.txt"),
        tr("Label track (*.txt);;WebVTT (*.vtt);;LRC (*.lrc);;MIDI file of all lanes (*.mid)"));
  if (file.isEmpty()) return;
  if (isMidi(file)) return exportMidi(file);
  const std::filesystem::path path = file.toStdString();
  const Outcome written = writeFileAtomically(path, labelText(*lane, labelFormatOf(path), score->length));
  if (!written) emit told(said(written.failure()));
}

}  // namespace chispa::desk
