// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <memory>
#include <optional>

#include <QElapsedTimer>
#include <QObject>

#include "desk/session/session.h"
#include "engine/night/nightwatch.h"
#include "engine/night/systemd.h"

namespace chispa::desk {

/// Set lists and the night watch of the window: plays them on the stage, and tells what would keep tonight
/// from happening. UI thread.
class NightDesk : public QObject {
  Q_OBJECT
 public:
  explicit NightDesk(const Session& session, QObject* parent = nullptr);
  ~NightDesk() override;

  bool isWatching() const { return watch_.isWatching(); }
  /// Says why not if the almanac cannot be followed.
  QString setWatching(bool on);
  const engine::NightWatch& watch() const { return watch_; }
  const engine::Performer& performer() const { return watch_.performer(); }
  /// Null while no night was watched.
  engine::NightLog* log() { return log_.get(); }

  /// Plays a list by hand; `speed` times as fast to try it.
  void play(SetListId list, double speed = 1);
  void stop();
  void skip();
  void back();
  void jump(std::size_t line);
  void playNext(std::size_t line);
  /// The name of what plays, a piece or the open score, and of the piece that comes next; empty if none does.
  QString playing() const;
  QString coming() const;
  /// How long the present piece has played.
  Micros played() const;
  /// Tonight only.
  void hold(bool on);
  void playLonger(int minutes);

  /// What would keep tonight from happening, each in a sentence.
  QStringList troubles() const;
  /// "Fair evening until 00:30", "dark until 21:04 (Fair)".
  QString tonight() const;
  engine::WallTime now() const { return clock_->now(); }
  /// Another clock, for tests and rehearsals.
  void setClock(std::unique_ptr<engine::WallClock> clock);

 signals:
  /// What plays, or what is watched, has changed.
  void changed();
  /// Rules or place are others.
  void almanacChanged();

 private:
  class Hand;
  void tick();
  void adoptShow();
  void guardSleep();
  QString clockWords(Instant at) const;
  QString tonightNow() const;

  Session session_;
  std::unique_ptr<Hand> hand_;
  std::unique_ptr<engine::NightLog> log_;
  engine::NightWatch watch_;
  engine::NightMeter meter_;
  std::unique_ptr<engine::WallClock> clock_;
  std::optional<engine::SleepGuard> guard_;
  /// What almanacChanged() was told of last.
  Items<Rule> rules_;
  Almanac almanac_;
  QString sleepTrouble_;
  QString logTrouble_;
  engine::MonoTime measuredAt_{0};
  /// What changed() was told of last.
  std::optional<Piece> shownPiece_;
  std::optional<Slot> shownSlot_;
  /// What tonight() said last, of which second.
  mutable QString tonight_;
  mutable Instant tonightAt_{};
};

}  // namespace chispa::desk
