// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <functional>
#include <vector>

#include <QObject>

#include "core/music/beats.h"
#include "desk/session/session.h"

namespace chispa::desk {

/// Puts right beats and bars of the open score that were found wrong. Each is one undoable edit. UI thread.
class BeatMending : public QObject {
  Q_OBJECT
 public:
  explicit BeatMending(const Session& session, QObject* parent = nullptr);

  /// Moves the beat that is nearest to the playhead there, or adds one; taps that follow each other are
  /// remembered.
  void tap();
  /// Counts another way from the beat under the playhead on.
  void count(BeatLevel level);
  /// Takes the bar that was tapped last as certain and finds all other beats anew.
  void settle();
  void setDownBeat();
  void shift(Micros by);
  /// A regular grid from the first two marks of the lane of marks, a bar apart.
  void gridFromMarks();
  void findAgain();
  void findOnsets();
  /// Chords into a lane of their own; the key is told.
  void findChords();
  /// Says where the beats that were found are not to be relied on, and what to do; nothing where they are.
  void tellUnsure(const FoundBeats& found);
  /// Other readings of the music, the likeliest first, to be heard and chosen from.
  void chooseReading(QWidget* over);

 signals:
  /// Something could not be done, in words that say what to do.
  void told(const QString& words);

 private:
  void change(const QString& name, const std::function<void(Show&, ScoreId)>& edit,
              const QString& mergeKey = {});
  void listen(const QString& name, const std::function<void(Show&, ScoreId, const AnalysedAudio&)>& edit);

  Session session_;
  /// The last taps, none more than a slow beat behind the one before.
  std::vector<Micros> taps_;
};

/// What a level is called in lists and in the list of what can be undone.
QString wordsOf(BeatLevel level);

}  // namespace chispa::desk
