// SPDX-License-Identifier: GPL-3.0-or-later
#include "desk/score/beatmending.h"

#include <algorithm>

#include "core/edit/markedits.h"
#include "desk/parts/format.h"
#include "desk/parts/language.h"
#include "desk/score/readingsdialog.h"

namespace chispa::desk {

QString wordsOf(BeatLevel level) {
  switch (level) {
    case BeatLevel::Twice:
      return BeatMending::tr("Twice as many beats");
    case BeatLevel::Half:
      return BeatMending::tr("Half as many beats");
    case BeatLevel::HalfBeatLater:
      return BeatMending::tr("Half a beat later");
    case BeatLevel::ThirdLater:
      return BeatMending::tr("A third of a beat later");
    case BeatLevel::ThirdEarlier:
      return BeatMending::tr("A third of a beat earlier");
    case BeatLevel::ThreeInABar:
      return BeatMending::tr("Three beats in a bar");
    case BeatLevel::FourInABar:
      return BeatMending::tr("Four beats in a bar");
  }
  return {};
}

BeatMending::BeatMending(const Session& session, QObject* parent) : QObject(parent), session_(session) {}

void BeatMending::change(const QString& name, const std::function<void(Show&, ScoreId)>& edit,
                         const QString& mergeKey) {
  const Score* score = session_.stage.score();
  if (!score) return emit told(tr("Open a score first."));
  session_.edit(
      name, [&, id = score->id](Show& show) { edit(show, id); }, mergeKey);
  session_.selection.prune(session_.show(), session_.stage.score());
}

void BeatMending::tap() {
  constexpr Micros kSlowest{2'500'000};
  const Micros at = session_.stage.position();
  if (!taps_.empty() && (at <= taps_.back() || at - taps_.back() > kSlowest)) taps_.clear();
  taps_.push_back(at);
  change(
      tr("tap beats"), [at](Show& show, ScoreId id) { tapBeat(show, id, at); }, QStringLiteral("tap"));
}

void BeatMending::count(BeatLevel level) {
  const Score* score = session_.stage.score();
  if (!score || instantsOf(*score, LaneKind::Beats).size() < 2)
    return emit told(tr("The score has no beats yet: find them, or tap them with T while it plays."));
  change(wordsOf(level).toLower(), [level, at = session_.stage.position()](Show& show, ScoreId id) {
    countBeats(show, id, level, at);
  });
}

void BeatMending::settle() {
  if (taps_.size() < 3)
    return emit told(
        tr("Tap a bar first: press T on each of its beats while it plays, and on the first beat of the next "
           "bar."));
  bool settled = false;
  listen(tr("find beats from a tapped bar"), [&](Show& show, ScoreId id, const AnalysedAudio& heard) {
    settled = settleBeats(show, id, heard, taps_);
  });
  if (settled) taps_.clear();
}

void BeatMending::setDownBeat() {
  change(tr("set the first beat of bars"), [at = session_.stage.position()](Show& show, ScoreId id) {
    chispa::setDownBeat(show, id, at, beatsPerBar(*chispa::find(show.scores, id)));
  });
}

void BeatMending::shift(Micros by) {
  change(
      tr("shift the beats"),
      [by](Show& show, ScoreId id) {
        for (const LaneKind kind : {LaneKind::Beats, LaneKind::Bars}) shiftMarks(show, id, kind, by);
      },
      QStringLiteral("shift-beats"));
}

void BeatMending::gridFromMarks() {
  const Score* score = session_.stage.score();
  if (!score) return;
  const auto marks = instantsOf(*score, LaneKind::Free);
  if (marks.size() < 2)
    return emit told(
        tr("Place two marks with M first, on the first beats of two bars that follow each other."));
  change(tr("regular beats"), [&, per = beatsPerBar(*score)](Show& show, ScoreId id) {
    makeGrid(show, id, marks[0], marks[1], per, per);
  });
}

void BeatMending::listen(const QString& name,
                         const std::function<void(Show&, ScoreId, const AnalysedAudio&)>& edit) {
  const auto audio = session_.stage.audio();
  if (!session_.stage.score() || !audio) return emit told(tr("There is no music to listen to."));
  change(name, [&](Show& show, ScoreId id) { edit(show, id, *audio); });
}

void BeatMending::findAgain() {
  listen(tr("find beats anew"),
         [](Show& show, ScoreId id, const AnalysedAudio& audio) { putBeats(show, id, audio); });
  if (const auto audio = session_.stage.audio()) tellUnsure(audio->beats);
}

void BeatMending::tellUnsure(const FoundBeats& found) {
  const auto isUnsure = [](float sure) { return sure < FoundBeats::kUnsure; };
  const auto first = std::find_if(found.sureness.begin(), found.sureness.end(), isUnsure);
  if (first == found.sureness.end()) return;
  const auto last = std::find_if(found.sureness.rbegin(), found.sureness.rend(), isUnsure);
  const auto at = [&](auto place) { return timeText(found.beats[static_cast<std::size_t>(place)]); };
  emit told(tr("Not sure of the beats between %1 and %2: they are drawn in amber. Hear them as clicks, and "
               "mend them with "
               "the keys 1 to 7, or with a tapped bar.")
                .arg(at(first - found.sureness.begin()), at(std::distance(last, found.sureness.rend()) - 1)));
}

void BeatMending::findOnsets() {
  listen(tr("find onsets"),
         [](Show& show, ScoreId id, const AnalysedAudio& audio) { putOnsets(show, id, *audio.features); });
}

void BeatMending::findChords() {
  const auto audio = session_.stage.audio();
  listen(tr("find chords"),
         [](Show& show, ScoreId id, const AnalysedAudio& found) { putChords(show, id, found.harmony); });
  if (!session_.stage.score() || !audio) return;
  const auto& key = audio->harmony.key;
  if (!key) return emit told(tr("No chords are heard in this music."));
  emit told(tr("The chords stand in a lane of their own. The key is %1.").arg(said(keyName(*key))));
}

void BeatMending::chooseReading(QWidget* over) {
  const auto audio = session_.stage.audio();
  const Score* score = session_.stage.score();
  if (!score || !audio) return emit told(tr("There is no music to listen to."));
  const BeatMarks now = beatMarksOf(*score);
  if (now.beats.size() < 2) return emit told(tr("The score has no beats yet: find them first."));
  ReadingsDialog(session_, *audio, over).exec();
}

}  // namespace chispa::desk
