// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QObject>

#include "core/edit/clipedits.h"
#include "desk/session/session.h"

namespace chispa::desk {

class TimelineView;

/// What one gesture or key does to many clips, or to the marks, of the open score. Where nothing is selected
/// the effect and the palette that are chosen on the shelf serve, on the chosen stave at the playhead. UI
/// thread.
class Composing : public QObject {
  Q_OBJECT
 public:
  Composing(const Session& session, TimelineView& timeline, QObject* parent = nullptr);

  /// A clip at every instant of a lane, from the pattern's beginning to the end of its section.
  void fill(LaneKind kind, int every = 1);
  /// The same, one stave after the other: the selected clips' zones, or the zones that are named alike.
  void alternate(LaneKind kind);
  void repeatToSectionEnd();
  void split();
  /// Twice as long and half as fast, or the other way.
  void stretch(double factor);
  void contentOffset(int beats);
  void copy();
  void cut();
  /// What was copied here or in another window of Chispa.
  void paste();
  /// Clips of a parcel, at the playhead, to the zones of the same names.
  void pasteParcel(const Show& parcel);
  void randomise();
  /// Turns what the selected clips show by so many degrees.
  void turnPicture(double by_deg);
  /// Mirrors it, or turns it upside down: the parameter `key` is switched over.
  void switchPicture(const QString& name, const char* key);
  void makeBlock();
  void dissolveBlock();
  /// In the section at the playhead, all clips like the selected one get the effect, or the palette, chosen
  /// on the shelf.
  void swapEffect();
  void swapPalette();
  void closeGap();
  void insertBar();

  /// The chosen stave passes its neighbour.
  void moveStave(bool up);
  /// The staves of the selected clips, or the chosen one, in a folder of their own.
  void newFolder();
  void leaveFolder();
  void joinFolder(const QString& name);
  void renameFolder();
  void removeStave();
  /// A stave for a zone that has none, above the chosen one; for all of them if none is said.
  void addStaves(const std::vector<ZoneId>& zones);
  /// Zones of the show that the open score has no stave for.
  std::vector<ZoneId> zonesWithoutStave() const;

  /// A section begins at the playhead.
  void beginSection();
  /// Selects the next mark, or the one before, that has a name of its own, and goes there.
  void stepMark(bool forward);

  /// All sections that are called like the one at the playhead get its light, adapted to their length.
  void copySectionLight();
  /// Of another score, which is asked for: staves and clips, bar by bar.
  void takeLight();
  /// Labels as a lane of words or of phonemes, or the tempo, notes and words of a MIDI file.
  void importLabels(LaneKind kind = LaneKind::Words, QString file = {});
  void exportLabels(QString file = {});

  /// The selected clip's effect with its values, on the shelf under a name.
  void saveOwn();
  /// Lays a block's clips open to be changed; closing makes the block of what is then selected, wherever it
  /// stands.
  void openBlock();
  void closeBlock();

  /// Only the selected clips' time, or the section at the playhead, plays; once more, all of it.
  void togglePart();

 signals:
  /// Something could not be done, in words that say what to do.
  void told(const QString& words);
  /// A new thing is on the shelf.
  void offered(const QString& words);

 private:
  void importMidi(const QString& file);
  void exportMidi(const QString& file);
  std::optional<Clip> pattern() const;
  /// One edit of the open score.
  void change(const QString& name, const std::function<void(Show&, ScoreId)>& edit,
              const QString& mergeKey = {});
  /// The same; the clips that it made are selected.
  void run(const QString& name, const std::function<ClipList(Show&, ScoreId)>& edit);
  void swap(const QString& name, const std::function<void(Show&, ScoreId, TimeSpan, const Clip&)>& edit);
  /// The zones of the selected clips, each once.
  std::vector<ZoneId> selectedZones(const Score& score) const;
  std::vector<ZoneId> zonesAlike(ZoneId zone) const;
  void fillOver(LaneKind kind, int every, std::vector<ZoneId> zones, const QString& name);

  Session session_;
  TimelineView& timeline_;
  std::vector<Clip> copied_;
  BlockId opened_;
};

}  // namespace chispa::desk
